// The words of painted pictures, and findings and errors of core in the interface's language.
#pragma once

#include <QCoreApplication>
#include <QString>

#include "core/base/finding.h"
#include "core/base/result.h"
#include "core/project/project.h"

namespace dotlane::present {

/// Translation context of all that present writes itself: Words::tr("mirrored").
struct Words {
    Q_DECLARE_TR_FUNCTIONS(Words)
};

/// A finding in the interface's language: the translation of its code (context "Finding") with the finding's
/// named arguments put in for {name}; its English message where there is no translation.
QString words(const Finding& finding);
/// The label of its remedy, translated by the remedy's code (context "Remedy").
QString remedy_words(const Finding& finding);
/// An error likewise, by its code (context "Error"), with its file and line.
QString words(const Error& error);

/// "Cut", in the interface's language.
QString action_title(Action action);

} // namespace dotlane::present
