// A stage of the derivation keeps what it made last of each thing, and from what. Its key is all that it may
// read: `make` is given the key and what never changes, and nothing else; so a key cannot be too small.
#pragma once

#include <functional>
#include <map>
#include <memory>

#include "core/base/progress.h"
#include "core/catalog/catalog.h"
#include "core/lettering/outliner.h"

namespace dotlane {

/// What stays the same as long as a workshop lives.
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
        Entry& entry = entries_[id];
        entry.asked = true;
        if (entry.value && entry.key == key) return entry.value;
        auto made = std::make_shared<const Value>(What::make(key, entry.value.get(), fixed, progress));
        if (progress.cancelled()) return nullptr;
        ++made_;
        entry.key = std::move(key);
        if constexpr (requires { What::same(*made, *made); })
            if (entry.value && What::same(*entry.value, *made)) return entry.value;
        entry.value = std::move(made);
        return entry.value;
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
