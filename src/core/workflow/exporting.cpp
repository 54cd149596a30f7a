#include "core/workflow/exporting.h"

#include "core/base/text.h"
#include "core/formats/svg/writer.h"

namespace dotlane {

Result<ExportResult> export_folder(const Derived& derived, const Catalog& catalog, FileSystem& files,
                                   const std::string& folder, const ExportOptions& options) {
    const int errors = count(derived.findings, Grade::error);
    if (errors > 0 && !options.override_errors) {
        std::string first;
        for (const Finding& f : derived.findings)
            if (f.grade == Grade::error && first.empty()) first = f.message;
        return fail("export.findings", "Nothing was exported, because " + std::to_string(errors) +
                                           (errors == 1 ? " error stands: " : " errors stand, the first: ") +
                                           first);
    }
    if (!derived.plan) return fail("export.no-plan", "Nothing was exported: " + derived.no_plan.message);
    const Program& program = derived.plan->program;
    RunSheet sheet = make_run_sheet(derived, catalog);
    if (errors > 0)
        sheet.overridden = "Exported in spite of " + std::to_string(errors) +
                           (errors == 1 ? " error finding" : " error findings") +
                           ", at the maker's own decision. They are listed below.";
    std::vector<std::pair<std::string, std::string>> out;
    const bool many = program.sheets.size() > 1;
    for (const ProgramSheet& s : program.sheets)
        out.emplace_back("00-everything" + (many ? "-" + file_safe(s.name) : "") + ".svg",
                         write_svg(program, {s.sheet, {}, sheet.overridden}));
    for (const Move& move : program.moves) {
        const auto* pass = std::get_if<PassMove>(&move);
        if (!pass) continue;
        std::string name = (pass->number < 10 ? "0" : "") + std::to_string(pass->number) + "-";
        for (const ProgramSheet& s : program.sheets)
            if (many && s.sheet == pass->sheet) name += file_safe(s.name) + "-";
        name += std::string(action_name(pass->action)) + "-" + file_safe(pass->lane_name) + ".svg";
        out.emplace_back(std::move(name), write_svg(program, {pass->sheet, pass->number, sheet.overridden}));
    }
    for (const auto& [name, bytes] : out)
        sheet.files.push_back(name);
    if (options.pdf) {
        sheet.files.emplace_back("run-sheet.pdf");
        auto pdf = options.pdf(sheet);
        if (!pdf) return tl::make_unexpected(pdf.error());
        out.emplace_back("run-sheet.pdf", std::move(*pdf));
    }
    sheet.files.emplace_back("run-sheet.txt");
    out.emplace_back("run-sheet.txt", to_text(sheet));
    if (auto ok = files.make_folder(folder); !ok) return tl::make_unexpected(ok.error());
    ExportResult result;
    for (const auto& [name, bytes] : out) {
        if (auto ok = files.write_atomically(folder + "/" + name, bytes); !ok)
            return tl::make_unexpected(ok.error());
        result.files.push_back(name);
    }
    return result;
}

} // namespace dotlane
