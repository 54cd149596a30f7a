#include "present/words.h"

namespace dotlane::present {
namespace {

/// Empty when the code has no translation: Qt then gives back the code itself.
QString translated(const char* context, const std::string& code) {
    const QString text = QCoreApplication::translate(context, code.c_str());
    return text == QString::fromStdString(code) ? QString() : text;
}

} // namespace

QString words(const Finding& finding) {
    QString text = translated("Finding", finding.code);
    if (text.isEmpty()) return QString::fromStdString(finding.message);
    for (const auto& [name, value] : finding.args)
        text.replace("{" + QString::fromStdString(name) + "}", QString::fromStdString(value));
    return text;
}

QString remedy_words(const Finding& finding) {
    const QString text = translated("Remedy", finding.remedy.code);
    return text.isEmpty() ? QString::fromStdString(finding.remedy.label) : text;
}

QString words(const Error& error) {
    Error shown = error;
    if (const QString text = translated("Error", error.code); !text.isEmpty())
        shown.message = text.toStdString();
    return QString::fromStdString(to_text(shown));
}

QString action_title(Action action) {
    static const char* const titles[] = {
        QT_TRANSLATE_NOOP("Action", "Draw"),  QT_TRANSLATE_NOOP("Action", "Engrave"),
        QT_TRANSLATE_NOOP("Action", "Foil"),  QT_TRANSLATE_NOOP("Action", "Emboss"),
        QT_TRANSLATE_NOOP("Action", "Score"), QT_TRANSLATE_NOOP("Action", "Perforate"),
        QT_TRANSLATE_NOOP("Action", "Cut"),   QT_TRANSLATE_NOOP("Action", "Print")};
    return QCoreApplication::translate("Action", titles[static_cast<int>(action)]);
}

} // namespace dotlane::present
