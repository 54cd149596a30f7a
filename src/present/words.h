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

/// What core says, in the interface's language; in English where there is no translation.
QString words(const Phrase& phrase);
QString words(const Finding& finding);
/// The label of its first remedy.
QString remedy_words(const Finding& finding);
/// With its file and line.
QString words(const Error& error);

/// "Cut", in the interface's language.
QString action_title(Action action);

} // namespace dotlane::present
