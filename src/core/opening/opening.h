// Opening a file: reading it, settling its real size, bringing it into view, and proposing lanes.
#pragma once

#include <optional>

#include "core/base/finding.h"
#include "core/base/progress.h"
#include "core/catalog/catalog.h"
#include "core/commands/lanes.h"
#include "core/formats/dxf/reader.h"
#include "core/formats/hpgl/reader.h"
#include "core/formats/svg/reader.h"
#include "core/project/project.h"
#include "core/project/steps.h"
#include "core/recipe/strays.h"

namespace dotlane {

/// A file that has been read but not yet taken into a project.
struct Opened {
    std::string name;     ///< proposed name of the part
    Source source;        ///< at 96 units per inch when `asks_scale`
    bool per_inch = true; ///< its units are so many to the inch; otherwise millimetres, centimetres or inches
    bool asks_scale = false; ///< the file carries no physical size: the maker must choose
    Box box;                 ///< of all lines, mm, as large as they are wished
    double scale = 1;        ///< of a file that says how large it is: as many times as large it is wished
    Findings findings;
    double outside_by_mm = 0; ///< how far art ran off the page before it was brought into view
};

/// Reads an SVG, DXF or HP-GL file. Errors: those of the readers, "open.empty" when the file holds no lines,
/// and "open.number" when a coordinate is not a number or beyond what a project may hold.
/// "open.large" and others that end in ".large": more than `limits` allow, see `may_be_large`.
Result<Opened> open_drawing(std::string bytes, const std::string& file_name, FontShelf& fonts,
                            Progress& progress = no_progress(), const ReadLimits& limits = {});
/// Findings of an SVG file about what lines cannot hold have the remedy "open.as-picture": see
/// open_as_picture. Whether the file could be opened with ReadLimits::large(), which may take minutes.
bool may_be_large(const Error& error);

/// A picture that has been read but not yet taken into a project.
struct OpenedPicture {
    std::string name;          ///< proposed name of the part
    Picture picture;           ///< its width is settled unless `asks_scale`
    int width = 0, height = 0; ///< pixels
    double per_inch = 0;       ///< pixels to the inch that the file states; 0: none
    bool asks_scale = false;
};
/// Reads a PNG or JPEG file to its end. Errors: "picture.damaged", "picture.large", "open.large".
Result<OpenedPicture> open_picture(std::string bytes, const std::string& file_name,
                                   const ReadLimits& limits = {});
/// An SVG file as a picture of what a renderer shows of it, to be traced. Its width is the page's where the
/// file says that. Errors: those of render_svg and open_picture.
Result<OpenedPicture> open_as_picture(const std::string& bytes, const std::string& file_name,
                                      FontShelf& fonts, const ReadLimits& limits = {});
/// Settles the size; error "open.width" unless 1 mm .. 5 m.
Result<void> settle_width(OpenedPicture& opened, Length width);

/// The finished size the art would have.
struct ScaleChoice {
    Phrase label;      ///< "96 per inch"
    double factor = 1; ///< on the lengths as read; of a picture, millimetres in a pixel
    Length width, height;
};
/// For 96, 90 and 72 units per inch and for millimetres; of a DXF file for millimetres, centimetres and
/// inches.
std::vector<ScaleChoice> scale_choices(const Opened& opened);
/// A unit of the file as so many millimetres: the factor on the lengths as read.
double factor_for_unit(const Opened& opened, double unit_mm);
/// For 300, 150 and 96 pixels to the inch.
std::vector<ScaleChoice> scale_choices(const OpenedPicture& opened);
/// For a finished width; error "open.width" unless 0.1 mm .. 100 m.
Result<ScaleChoice> scale_to_width(const Opened& opened, Length width);
/// Settles the size: lengths are multiplied by the factor and the question is answered. A file that says how
/// large it is keeps its lengths, and the part is scaled, so that what that does to its fills can be told.
void settle_scale(Opened& opened, double factor);

/// Strays are told among the findings ("open.stray") until they are treated: kept, brought near or left out.
void treat_strays(Opened& opened, StrayChoice choice);

/// Lines of one stroke and fill colour, proposed as a lane.
struct Gathering {
    std::optional<Colour> stroke, fill;
    bool dashed = false;
    std::vector<std::size_t> lines; ///< indices into the drawing
    std::size_t closed = 0, open = 0;
    Action action = Action::cut;
    Colour colour;    ///< of the lane
    std::string tool; ///< catalog id
    std::string name; ///< "rust pen 0.4"
    Phrase reason;    ///< why this action
};
/// `begins`: the kind of step that the part is to begin with; the areas of one that takes colours for layers
/// are cut, whatever their colour. Null: none.
std::vector<Gathering> gather_lanes(const Drawing& drawing, const Catalog& catalog,
                                    const StepKind* begins = nullptr);
/// What a maker chooses in place of what was guessed; an action brings its first tool along.
void choose_action(Gathering& gathering, Action action, const Catalog& catalog);
void choose_tool(Gathering& gathering, const std::string& tool, const Catalog& catalog);

/// Takes the file into the project as a new part. With `gatherings`, their lines go to the lanes they
/// propose. Error "open.number": at the settled size a coordinate is beyond what a project may hold; and
/// those of append_step.
struct TakeIn {
    Opened opened;
    std::vector<Gathering> gatherings = {};
    std::vector<StepWhat> steps = {}; ///< that the part begins with, on all its lines
};
Result<Done> apply(const TakeIn& command, Project& project, const Catalog& catalog);

} // namespace dotlane
