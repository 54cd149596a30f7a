// What many tests need: files in memory, seeded random numbers, small drawings and projects.
#pragma once

#include <catch2/catch.hpp>
#include <iostream>
#include <map>
#include <random>

#include "core/base/files.h"
#include "core/commands/making.h"
#include "core/derive/workshop.h"
#include "core/geometry/region.h"
#include "core/project/edits.h"

namespace dotlane {
inline std::ostream& operator<<(std::ostream& out, const Phrase& phrase) {
    return out << phrase.english(); // for what a failed check shows
}
} // namespace dotlane

namespace dotlane::test {

/// A disk in memory that can be told to fail.
class MemoryFiles : public FileSystem {
  public:
    Result<std::string> read(const std::string& path, std::uint64_t max_bytes) override;
    Result<void> write_atomically(const std::string& path, const std::string& bytes,
                                  Access access = Access::usual) override;
    Result<void> write_folder(const std::string& folder, const std::vector<NamedBytes>& files,
                              const std::vector<std::string>& gone) override;
    Result<void> make_folder(const std::string& path, Access access = Access::usual) override;
    FileMark mark(const std::string& path) override;
    Result<std::unique_ptr<FileLock>> lock(const std::string& path, int wait_ms) override;
    bool exists(const std::string& path) override { return files.contains(path); }
    void remove(const std::string& path) override { files.erase(path); }
    std::vector<std::string> list(const std::string& folder) override;

    std::map<std::string, std::string> files;
    int writes = 0;
    int writes_left = 1 << 30; ///< then the disk is full
};

/// Seeded by DOTLANE_SEED or else by chance; the seed is printed when something fails, and always to stdout.
class Random {
  public:
    explicit Random(const char* what);
    double real(double low, double high) {
        return std::uniform_real_distribution<double>(low, high)(engine_);
    }
    int whole(int low, int high) { return std::uniform_int_distribution<int>(low, high)(engine_); }
    bool coin(double chance = 0.5) { return real(0, 1) < chance; }
    std::mt19937& engine() { return engine_; }
    unsigned seed() const { return seed_; }

  private:
    unsigned seed_;
    std::mt19937 engine_;
};

/// MakePart and ChangeSource as fixtures.
Result<PartId> make_part(Project& project, const Catalog& catalog, FontShelf& fonts, SourceSpec spec,
                         std::string name = {}, PartId lender = {});
Result<void> change_source(Project& project, const Catalog& catalog, FontShelf& fonts, PartId part,
                           SourceSpec spec);

/// The catalog that ships with the program.
const Catalog& catalog();

Polyline ring(std::vector<Point> points);
Polyline line(std::vector<Point> points);
Ring regular(int corners, double radius, Point centre = {}, double turn = 0);
Region square(double side, Point at = {});
/// A star-shaped simple polygon with random radii.
Ring random_ring(Random& random, int corners, double least, double most, Point centre = {});

double area_of(const Region& region);  ///< mm2
double area_of(const DrawnLine& line); ///< of what its shape bounds, curves flattened to 0.001 mm
/// The fonts that ship with the program, for all tests.
FontShelf& fonts();
/// A figure that a source told; fails the test when there is none.
double figure(const SourceLines& lines, const std::string& key);

/// SVG source around some elements: a page of w x h mm with user units of 1 mm.
std::string svg(const std::string& elements, double w = 100, double h = 100);
/// A drawing read from such a source; fails the test when it cannot be read.
Drawing drawing(const std::string& elements, double w = 100, double h = 100);

/// 400 x 120 mm: leaves and petals (a gradient) in groups, and a dot far off them.
extern const char* const littered;

/// A project with one part made from a drawing, its lanes proposed and taken, on one sheet.
struct Bench {
    std::shared_ptr<Workshop> workshop;
    Project project;
    PartId part;
    SheetId sheet;

    std::shared_ptr<const Derived> derive() const {
        return workshop->derive(std::make_shared<Project>(project));
    }
    std::vector<LineId> lines() const;
    LaneId lane(Action action) const; ///< the first lane of an action
};
Bench bench(const std::string& elements, double w = 100, double h = 100, bool placed = true);

bool has(const Findings& findings, const std::string& code);
/// A copy, for what is derived for one line of a test is gone after it; fails the test when there is none.
Finding get(const Findings& findings, const std::string& code);

/// Unwraps a result or fails the test with its message.
template<class T>
T must(Result<T> result) {
    if (!result) FAIL(to_text(result.error()));
    return std::move(*result);
}
inline void must(const Result<void>& result) {
    if (!result) FAIL(to_text(result.error()));
}

std::string file(const std::string& path); ///< content of a real file, empty when there is none
/// Output of a shell command; `status` receives its exit code.
std::string shell(const std::string& command, int* status = nullptr);
/// A fresh folder that is removed at the end.
class TemporaryFolder {
  public:
    TemporaryFolder();
    ~TemporaryFolder();
    std::string path;
    std::string operator/(const std::string& name) const { return path + "/" + name; }
};

/// What is kept of tools lies in a folder of its own as long as this lives.
class OwnHome : public TemporaryFolder {
  public:
    OwnHome();
    ~OwnHome();

  private:
    std::string before_;
};

/// A comma stands before decimals as long as this lives, as Qt sets it in such a country.
class CommaLocale {
  public:
    CommaLocale();
    ~CommaLocale();
    CommaLocale(const CommaLocale&) = delete;
    CommaLocale& operator=(const CommaLocale&) = delete;

  private:
    std::string before_;
};

/// Fills those of the lines that are closed, as a line set of their own.
Result<StepId> fill_lines(Project& project, const Catalog& catalog, PartId part,
                          const std::vector<LineId>& lines);

} // namespace dotlane::test
