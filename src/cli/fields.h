// Members of sources and steps on the command line: "--set width=105mm".
#pragma once

#include <functional>
#include <memory>
#include <nlohmann/json.hpp>
#include <ostream>
#include <string>
#include <vector>

#include "core/base/figure.h"
#include "core/base/measure.h"
#include "core/project/project.h"

namespace dotlane::cli {

/// A value with members: a source or a step.
class Settable {
  public:
    virtual ~Settable() = default;
    virtual void visit(Fields& f) const = 0;
    virtual std::unique_ptr<Settable> copy() const = 0;
};

/// Sets members from "key=value" pairs; bare lengths are in the project's unit, parts are named. Errors:
/// "cli.set" names what can be set, "cli.no-effect" the choice that a member would need to have an effect.
Result<void> set_fields(const Settable& target, const std::vector<std::string>& pairs,
                        const Project& project);

template<class T>
Result<void> set_fields(T& value, const std::vector<std::string>& pairs, const Project& project) {
    class Members final : public Settable {
      public:
        explicit Members(std::shared_ptr<T> held)
            : held_(std::move(held)) {}
        void visit(Fields& f) const override { fields(*held_, f); }
        std::unique_ptr<Settable> copy() const override {
            return std::make_unique<Members>(std::make_shared<T>(*held_));
        }

      private:
        std::shared_ptr<T> held_;
    };
    const auto changed = std::make_shared<T>(value);
    const auto ok = set_fields(static_cast<const Settable&>(Members(changed)), pairs, project);
    if (ok) value = *changed;
    return ok;
}

/// One row a member: key, value now, range or choices.
void print_fields(std::ostream& out, const std::function<void(Fields&)>& fields);
/// [{"key": "width", "range": "3 to 2000 mm", "offered": 80.0}, ...]
nlohmann::json described_json(const std::function<void(Fields&)>& fields);
/// Those that have an effect at the moment.
nlohmann::json fields_json(const std::function<void(Fields&)>& fields);
/// {"web_mm": 2.4, ...}; keys that come twice become lists.
nlohmann::json figures_json(const std::vector<Figure>& figures);
void print_figures(std::ostream& out, const std::vector<Figure>& figures);

} // namespace dotlane::cli
