<?xml version="1.0" encoding="utf-8"?>
<!DOCTYPE TS>
<TS version="2.1" language="en_US">
<context>
    <name>Fill</name>
    <message numerus="yes">
        <source>%n line(s)</source>
        <translation>
            <numerusform>%n line</numerusform>
            <numerusform>%n lines</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n stroke(s)</source>
        <translation>
            <numerusform>%n stroke</numerusform>
            <numerusform>%n strokes</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n lift(s)</source>
        <translation>
            <numerusform>%n lift</numerusform>
            <numerusform>%n lifts</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n piece(s) left out</source>
        <translation>
            <numerusform>%n piece left out</numerusform>
            <numerusform>%n pieces left out</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n pass(es) deep</source>
        <translation>
            <numerusform>%n pass deep</numerusform>
            <numerusform>%n passes deep</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>Words</name>
    <message numerus="yes">
        <source>%n stroke(s), %1 m</source>
        <translation>
            <numerusform>%n stroke, %1 m</numerusform>
            <numerusform>%n strokes, %1 m</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>dotlane::app::ArrangeCard</name>
    <message numerus="yes">
        <source>%n parts chosen</source>
        <translation>
            <numerusform>%n parts chosen</numerusform>
            <numerusform>%n parts chosen</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>dotlane::app::Board</name>
    <message numerus="yes">
        <source>, %n sheet(s) of %1</source>
        <translation>
            <numerusform>, %n sheet of %1</numerusform>
            <numerusform>, %n sheets of %1</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>dotlane::app::ColourRow</name>
    <message numerus="yes">
        <source>%n colour(s), each of its own</source>
        <translation>
            <numerusform>%n colour, each of its own</numerusform>
            <numerusform>%n colours, each of its own</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n colour(s) count as %1: </source>
        <translation>
            <numerusform>%n colour count as %1: </numerusform>
            <numerusform>%n colours count as %1: </numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n sheet(s) fewer when each has its own</source>
        <translation>
            <numerusform>%n sheet fewer when each has its own</numerusform>
            <numerusform>%n sheets fewer when each has its own</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>dotlane::app::Exporter</name>
    <message numerus="yes">
        <source>%n file(s) exported to %1.</source>
        <translation>
            <numerusform>%n file exported to %1.</numerusform>
            <numerusform>%n files exported to %1.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>dotlane::app::FindingsPill</name>
    <message numerus="yes">
        <source>%n finding(s)</source>
        <translation>
            <numerusform>%n finding</numerusform>
            <numerusform>%n findings</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>dotlane::app::Header</name>
    <message numerus="yes">
        <source>%1 of %n part(s)</source>
        <translation>
            <numerusform>%1 of %n part</numerusform>
            <numerusform>%1 of %n parts</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>dotlane::app::LanePanel</name>
    <message numerus="yes">
        <source>%n line(s) in it</source>
        <translation>
            <numerusform>%n line in it</numerusform>
            <numerusform>%n lines in it</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>dotlane::app::LineSetCard</name>
    <message numerus="yes">
        <source>%n line(s)</source>
        <translation>
            <numerusform>%n line</numerusform>
            <numerusform>%n lines</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>dotlane::app::OpeningPanel</name>
    <message numerus="yes">
        <source>%n line(s), %1</source>
        <translation>
            <numerusform>%n line, %1</numerusform>
            <numerusform>%n lines, %1</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%1, %n line(s)</source>
        <translation>
            <numerusform>%1, %n line</numerusform>
            <numerusform>%1, %n lines</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>dotlane::app::PartView</name>
    <message numerus="yes">
        <source>%n line(s) chosen. A lane's letter sends the choice there.</source>
        <translation>
            <numerusform>%n line chosen. A lane's letter sends the choice there.</numerusform>
            <numerusform>%n lines chosen. A lane's letter sends the choice there.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>dotlane::app::SourceCard</name>
    <message numerus="yes">
        <source>from %1, %n line(s)</source>
        <translation>
            <numerusform>from %1, %n line</numerusform>
            <numerusform>from %1, %n lines</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%1: %n part(s)</source>
        <translation>
            <numerusform>%1: %n part</numerusform>
            <numerusform>%1: %n parts</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>dotlane::app::StepCard</name>
    <message numerus="yes">
        <source>%n line set(s)</source>
        <translation>
            <numerusform>%n line set</numerusform>
            <numerusform>%n line sets</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>; of cloth %1 wide, %2 for %n copies</source>
        <translation>
            <numerusform>; of cloth %1 wide, %2 for %n copies</numerusform>
            <numerusform>; of cloth %1 wide, %2 for %n copies</numerusform>
        </translation>
    </message>
</context>
</TS>
