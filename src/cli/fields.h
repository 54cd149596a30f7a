// Members of sources and steps on the command line: "--set width=105mm".
#pragma once

#include <functional>
#include <nlohmann/json.hpp>
#include <ostream>
#include <string>
#include <vector>

#include "core/base/figure.h"
#include "core/base/measure.h"
#include "core/project/project.h"

namespace dotlane::cli {

/// Sets members from "key=value" pairs; bare lengths are in the project's unit, parts are named. Error
/// "cli.set" names what can be set.
Result<void> set_fields(const std::function<void(Fields&)>& fields, const std::vector<std::string>& pairs,
                        const Project& project);
/// One row a member: key, value now, range or choices.
void print_fields(std::ostream& out, const std::function<void(Fields&)>& fields);
nlohmann::json fields_json(const std::function<void(Fields&)>& fields);
/// {"web_mm": 2.4, ...}; keys that come twice become lists.
nlohmann::json figures_json(const std::vector<Figure>& figures);
void print_figures(std::ostream& out, const std::vector<Figure>& figures);

} // namespace dotlane::cli
