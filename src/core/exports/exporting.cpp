#include "core/exports/exporting.h"

#include "core/base/text.h"
#include "core/exports/export_names.h"
#include "core/exports/manifest.h"
#include "core/formats/svg/writer.h"

namespace dotlane {
namespace {

class Exporter {
  public:
    Exporter(const Derived& derived, const Catalog& catalog, const ExportOptions& options)
        : derived_(derived)
        , catalog_(catalog)
        , options_(options)
        , program_(derived.plan->program)
        , names_(program_) {}

    Result<std::vector<NamedBytes>> content(int errors) {
        Phrase told;
        if (errors > 0)
            told = say_n(static_cast<std::size_t>(errors),
                         "Exported in spite of %n error [finding|findings], at the maker's own decision. "
                         "They are listed below.");
        const std::string overridden = options_.speak(told);
        PrintFiles prints;
        if (auto ok = add_prints(overridden, prints); !ok) return tl::make_unexpected(ok.error());
        for (const ProgramSheet& s : program_.sheets)
            add(names_.everything(s.sheet) + ".svg", write_svg(program_, {s.sheet, {}, overridden}));
        for (const Move& move : program_.moves)
            if (const auto* pass = std::get_if<PassMove>(&move))
                add(names_.pass(*pass), write_svg(program_, {pass->sheet, pass->number, overridden}));
        RunSheet sheet = make_run_sheet(derived_, catalog_, prints);
        sheet.overridden = told;
        for (const NamedBytes& file : out_)
            sheet.files.push_back(file.first);
        const bool pdf = static_cast<bool>(options_.pdf.run_sheet);
        if (pdf) sheet.files.emplace_back("run-sheet.pdf");
        sheet.files.emplace_back("run-sheet.txt");
        if (pdf) {
            auto bytes = options_.pdf.run_sheet(sheet, derived_, catalog_);
            if (!bytes) return tl::make_unexpected(bytes.error());
            add("run-sheet.pdf", std::move(*bytes));
        }
        add("run-sheet.txt", to_text(sheet, derived_, options_.speak));
        return std::move(out_);
    }

  private:
    void add(std::string name, std::string bytes) { out_.emplace_back(std::move(name), std::move(bytes)); }

    Result<void> add_prints(const std::string& overridden, PrintFiles& prints) {
        for (const PrintSheet& print : program_.prints) {
            const std::string name = names_.print(print.sheet.sheet);
            std::vector<PlacedImage> images;
            for (const PrintPicture& picture : print.pictures) {
                auto image = printed_image(*picture.bytes, picture.width, picture.to_sheet, picture.art,
                                           picture.whole);
                if (!image) return tl::make_unexpected(image.error());
                images.push_back(std::move(*image));
            }
            add(name + ".svg", write_print_svg(print, images, program_.project, overridden));
            prints[print.sheet.sheet] = name + (options_.pdf.print ? ".pdf" : ".svg");
            if (!options_.pdf.print) continue;
            auto bytes = options_.pdf.print(print, images, program_.project + ", " + print.sheet.name);
            if (!bytes) return tl::make_unexpected(bytes.error());
            add(name + ".pdf", std::move(*bytes));
        }
        return {};
    }

    const Derived& derived_;
    const Catalog& catalog_;
    const ExportOptions& options_;
    const Program& program_;
    const ExportNames names_;
    std::vector<NamedBytes> out_;
};

} // namespace

Result<ExportResult> export_folder(const Derived& derived, const Catalog& catalog, FileSystem& files,
                                   const std::string& folder, const ExportOptions& options) {
    const int errors = count(derived.findings, Grade::error);
    if (errors > 0 && !options.override_errors) {
        Phrase first;
        for (const Finding& f : derived.findings)
            if (f.grade == Grade::error && first.empty()) first = f.message;
        return fail("export.findings",
                    say_n(errors,
                          "Nothing was exported, because %n [error stands|errors stand, the first]: %1",
                          first));
    }
    if (!derived.plan)
        return fail("export.no-plan", say("Nothing was exported: %1", derived.no_plan.message));
    auto content = Exporter(derived, catalog, options).content(errors);
    if (!content) return tl::make_unexpected(content.error());
    const FolderState state = look_at_folder(files, folder, *content);
    if (!state.foreign.empty())
        return fail("export.foreign",
                    say("Nothing was exported: \"%1\" in \"%2\" is not from an export, or has been changed "
                        "since. Choose another folder, or move that file away.",
                        state.foreign, folder));
    ExportResult result{{}, state.gone, state.changed};
    for (const NamedBytes& file : *content)
        result.files.push_back(file.first);
    // First, so that an export that is stopped half way knows its files again.
    content->insert(content->begin(), {manifest_name, make_manifest(derived.project->name, *content, state)});
    if (auto ok = files.write_folder(folder, *content, state.gone); !ok)
        return tl::make_unexpected(ok.error());
    return result;
}

} // namespace dotlane
