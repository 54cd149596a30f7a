// Names of exported files: those of sheets and lanes as far as a file system bears them, all different.
#pragma once

#include <map>
#include <string>
#include <string_view>

#include "core/machine/program.h"

namespace dotlane {

inline constexpr std::size_t longest_file_name = 120; ///< bytes

/// The name without what some file system does not bear, or nobody wants to type: blanks, control characters
/// and / \ : * ? " < > | become hyphens; hyphens and dots at its ends vanish; letters of all languages stay.
/// Cut between characters to so many bytes. "unnamed" when nothing is left.
std::string file_word(std::string_view name, std::size_t most_bytes = longest_file_name);

/// The names of one export. Names that differ only in case count as the same.
class ExportNames {
  public:
    explicit ExportNames(const Program& program);
    std::string everything(SheetId sheet) const { return of_sheet("00-everything", sheet); }
    std::string print(SheetId sheet) const { return of_sheet("00-print", sheet); }
    std::string pass(const PassMove& pass) const;

  private:
    std::string of_sheet(const char* begin, SheetId sheet) const;
    std::map<SheetId, std::string> words_; ///< empty when there is only one sheet
};

} // namespace dotlane
