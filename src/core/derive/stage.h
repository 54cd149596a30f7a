// A stage of the derivation keeps what it made last of each thing, and from what. Its key is all that it may
// read: `make` is given the key and what never changes, and nothing else; so a key cannot be too small.
#pragma once

#include <functional>
#include <map>
#include <memory>
#include <vector>

#include "core/base/parallel.h"
#include "core/base/progress.h"
#include "core/catalog/catalog.h"
#include "core/lettering/outliner.h"

namespace dotlane {

/// What stays the same as long as the stages are kept.
struct Fixed {
    const Catalog& catalog;
    std::function<FontShelf&()> fonts; ///< they are read when they are first asked for
};

/// `What` has types Id, Key (with ==) and Value, and
///     static Value make(const Key& key, const Value* before, const Fixed& fixed, Progress& progress);
/// where `before` is what was made last of the same thing, null at first. It may have
///     static bool same(const Value& a, const Value& b);
/// then what is made anew and is the same counts as the old one: whatever was made from it still holds.
template<class What>
class Stage {
  public:
    using Id = typename What::Id;
    using Key = typename What::Key;
    using Value = typename What::Value;
    using Made = std::shared_ptr<const Value>;

    /// Null when cancelled: half of it is kept by nobody.
    Made get(const Id& id, Key key, const Fixed& fixed, Progress& progress) {
        std::vector<std::pair<Id, Key>> one;
        one.emplace_back(id, std::move(key));
        auto made = get_all(std::move(one), fixed, progress);
        return made.empty() ? nullptr : made.front();
    }
    /// Several that do not need one another, on as many cores as there are. Empty when cancelled.
    std::vector<Made> get_all(std::vector<std::pair<Id, Key>> wanted, const Fixed& fixed,
                              Progress& progress) {
        std::vector<Entry*> entries;
        std::vector<std::size_t> fresh;
        for (std::size_t i = 0; i < wanted.size(); ++i) {
            Entry& entry = entries_[wanted[i].first];
            entry.asked = true;
            entries.push_back(&entry); // a map's entries stay where they are
            if (!entry.value || !(entry.key == wanted[i].second)) fresh.push_back(i);
        }
        std::vector<Made> made(fresh.size());
        constexpr std::size_t worth_threads = 1'000'000; // a part takes milliseconds
        in_parallel(fresh.size(), fresh.size() > 1 ? worth_threads : 0, [&](std::size_t k) {
            const std::size_t i = fresh[k];
            if (!progress.cancelled())
                made[k] = std::make_shared<const Value>(
                    What::make(wanted[i].second, entries[i]->value.get(), fixed, progress));
        });
        if (progress.cancelled()) return {};
        for (std::size_t k = 0; k < fresh.size(); ++k) {
            Entry& entry = *entries[fresh[k]];
            entry.key = std::move(wanted[fresh[k]].second);
            ++made_;
            if constexpr (requires { What::same(*made[k], *made[k]); })
                if (entry.value && What::same(*entry.value, *made[k])) continue;
            entry.value = std::move(made[k]);
        }
        std::vector<Made> out;
        for (const Entry* entry : entries)
            out.push_back(entry->value);
        return out;
    }
    /// Forgets what nobody asked for since the last time.
    void prune() {
        std::erase_if(entries_, [](const auto& entry) { return !entry.second.asked; });
        for (auto& [id, entry] : entries_)
            entry.asked = false;
    }
    std::size_t size() const { return entries_.size(); }
    /// How often something was made, ever: for tests of what an edit costs.
    std::size_t made() const { return made_; }

  private:
    struct Entry {
        Key key;
        Made value;
        bool asked = false;
    };
    std::map<Id, Entry> entries_;
    std::size_t made_ = 0;
};

} // namespace dotlane
