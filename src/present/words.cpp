#include "present/words.h"

namespace dotlane::present {

QString words(const Phrase& phrase) {
    if (phrase.context.empty()) return QString::fromStdString(phrase.text);
    const QString text = QCoreApplication::translate(phrase.context.c_str(), phrase.text.c_str(), nullptr,
                                                     phrase.n ? static_cast<int>(*phrase.n) : -1);
    std::string filled = text.toStdString();
    if (phrase.n) filled = of_number(filled, *phrase.n); // what has no translation chooses in English
    std::vector<std::string> said;
    for (const Phrase& arg : phrase.args)
        said.push_back(words(arg).toStdString());
    return QString::fromStdString(filled_in(filled, said));
}

QString words(const Finding& finding) {
    return words(finding.message);
}

QString remedy_words(const Finding& finding) {
    return words(finding.remedy.label);
}

QString words(const Error& error) {
    return words(phrase_of(error));
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
