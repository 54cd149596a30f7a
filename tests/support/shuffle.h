// Chooses every number and choice of a source or a step anew, at random within its range.
#pragma once

#include <cmath>

#include "core/project/fields.h"
#include "tests/support/support.h"

namespace dotlane::test {

class Shuffle final : public Fields {
  public:
    /// `widest`: lengths stay under it, so that what is made can be worked on in a moment.
    explicit Shuffle(Random& random, Length widest = mm(1e9))
        : r_(random)
        , widest_(widest) {}
    void length(FieldName, Length& v, Length low, Length high) override {
        v = mm(any(in_mm(low), std::min(in_mm(high), in_mm(widest_))));
    }
    void maybe_length(FieldName n, std::optional<Length>& v, Length low, Length high, const char*) override {
        if (r_.coin()) length(n, v.emplace(), low, high);
    }
    void angle(FieldName, Angle& v) override { v = degrees(r_.real(-360, 360)); }
    void number(FieldName, double& v, double low, double high) override { v = any(low, high); }
    void em_space(FieldName, EmSpace& v, double low, double high) override {
        v = r_.coin(0.3) ? EmSpace{0, mm(any(-20, 40))} : EmSpace{any(low, high), {}};
    }
    void whole(FieldName, int& v, int low, int high) override {
        v = static_cast<int>(any(low, std::min<double>(high, most)));
    }
    void flag(FieldName, bool& v) override { v = r_.coin(); }
    void choice(FieldName, int& v, std::span<const char* const> words) override {
        v = r_.whole(0, static_cast<int>(words.size()) - 1);
    }
    void text(FieldName, std::string&, TextKind) override {}
    void part(FieldName, PartId&) override {}
    bool all() const override { return true; }

    double most = 1e9; ///< counts stay under it

  private:
    /// Often the ends of the range, and small numbers more often than large ones.
    double any(double low, double high) {
        return r_.coin(0.2) ? low : r_.coin(0.1) ? high : low + (high - low) * std::pow(r_.real(0, 1), 4);
    }
    Random& r_;
    Length widest_;
};

} // namespace dotlane::test
