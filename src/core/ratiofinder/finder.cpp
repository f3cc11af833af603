// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ratiofinder/finder.h"

#include "core/ratiofinder/arrange.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <numeric>
#include <queue>
#include <set>

namespace gantry::ratiofinder {
namespace {

using drivetrain::Ratio;
__extension__ using Wide = __int128; // every compiler this is built with has it

/// One or two stages as a set of wheels; how they are paired is decided at the end. Unused places are −1.
struct Half {
    std::array<std::int16_t, 2> drivers{-1, -1}, driven{-1, -1};
};

/// Halves of one ratio, as a range in a sorted list.
struct Group {
    double value = 1.0;
    std::uint32_t numerator = 1, denominator = 1;
    std::uint32_t begin = 0, end = 0;
};

struct HalfTable {
    std::vector<Half> halves;
    std::vector<Group> groups; ///< by value, rising
};

/// A set of up to four stages: sorted drivers, sorted driven.
struct WheelSet {
    std::array<std::int16_t, 4> drivers{}, driven{};

    friend auto operator<=>(const WheelSet&, const WheelSet&) = default;
};

/// |r/target − 1| as an exact fraction: |p·td − tn·q| / (q·tn).
struct ExactError {
    Wide over = 0, under = 1;
};

ExactError exactError(const Ratio& r, const Ratio& target) {
    const Wide difference = static_cast<Wide>(r.numerator()) * target.denominator() -
                            static_cast<Wide>(target.numerator()) * r.denominator();
    return {difference < 0 ? -difference : difference,
            static_cast<Wide>(r.denominator()) * target.numerator()};
}

/// Whether a is a smaller error than b. Falls back to doubles where the products would not fit.
bool smaller(const ExactError& a, const ExactError& b) {
    Wide left = 0, right = 0;
    if (!__builtin_mul_overflow(a.over, b.under, &left) && !__builtin_mul_overflow(b.over, a.under, &right))
        return left < right;
    return static_cast<double>(a.over) / static_cast<double>(a.under) <
           static_cast<double>(b.over) / static_cast<double>(b.under);
}

struct RatioOrder {
    bool operator()(const Ratio& a, const Ratio& b) const {
        return a.numerator() != b.numerator() ? a.numerator() < b.numerator()
                                              : a.denominator() < b.denominator();
    }
};

} // namespace

struct Bin::Impl {
    std::vector<Wheel> wheels;
    std::vector<Family> families;
    std::array<HalfTable, 3> tables; ///< of no, one and two stages

    bool usable(std::initializer_list<int> indices) const {
        for (const int i : indices)
            if (std::count(indices.begin(), indices.end(), i) > wheels[static_cast<std::size_t>(i)].count)
                return false;
        return true;
    }

    std::uint32_t teeth(int i) const {
        return static_cast<std::uint32_t>(wheels[static_cast<std::size_t>(i)].teeth);
    }

    void build() {
        tables[0].halves.push_back({});
        tables[0].groups.push_back({1.0, 1, 1, 0, 1});
        const int n = static_cast<int>(wheels.size());
        std::vector<std::vector<int>> members(families.size());
        for (int i = 0; i < n; ++i)
            members[static_cast<std::size_t>(wheels[static_cast<std::size_t>(i)].family)].push_back(i);
        std::vector<std::array<int, 2>> stages;
        for (const auto& family : members)
            for (const int a : family)
                for (const int b : family)
                    if (usable({a, b})) stages.push_back({a, b});
        for (const auto& [a, b] : stages)
            tables[1].halves.push_back(
                {{static_cast<std::int16_t>(a), -1}, {static_cast<std::int16_t>(b), -1}});
        const auto add = [&](int a, int c, int b, int d) {
            if (usable({a, b, c, d}))
                tables[2].halves.push_back({{static_cast<std::int16_t>(a), static_cast<std::int16_t>(c)},
                                            {static_cast<std::int16_t>(b), static_cast<std::int16_t>(d)}});
        };
        // Two stages of one family: any two drivers with any two driven, since either pairing is the same
        // set.
        for (const auto& family : members)
            for (std::size_t i = 0; i < family.size(); ++i)
                for (std::size_t j = i; j < family.size(); ++j)
                    for (std::size_t k = 0; k < family.size(); ++k)
                        for (std::size_t l = k; l < family.size(); ++l)
                            add(family[i], family[j], family[k], family[l]);
        for (const auto& [a, b] : stages)
            for (const auto& [c, d] : stages)
                if (wheels[static_cast<std::size_t>(a)].family < wheels[static_cast<std::size_t>(c)].family)
                    add(a, c, b, d);
        group(tables[1]);
        group(tables[2]);
    }

    void group(HalfTable& table) const {
        struct Keyed {
            std::uint64_t key;
            std::uint32_t index;
        };
        std::vector<Keyed> order(table.halves.size());
        for (std::size_t i = 0; i < order.size(); ++i) {
            const Half& h = table.halves[i];
            std::uint32_t p = teeth(h.driven[0]), q = teeth(h.drivers[0]);
            if (h.drivers[1] >= 0) {
                p *= teeth(h.driven[1]);
                q *= teeth(h.drivers[1]);
            }
            const std::uint32_t g = std::gcd(p, q);
            order[i] = {static_cast<std::uint64_t>(p / g) << 32 | q / g, static_cast<std::uint32_t>(i)};
        }
        std::sort(order.begin(), order.end(), [](const Keyed& a, const Keyed& b) { return a.key < b.key; });
        std::vector<Half> sorted;
        sorted.reserve(order.size());
        for (std::size_t i = 0; i < order.size(); ++i) {
            if (i == 0 || order[i].key != order[i - 1].key) {
                const auto p = static_cast<std::uint32_t>(order[i].key >> 32),
                           q = static_cast<std::uint32_t>(order[i].key);
                if (!table.groups.empty()) table.groups.back().end = static_cast<std::uint32_t>(i);
                table.groups.push_back({static_cast<double>(p) / q, p, q, static_cast<std::uint32_t>(i), 0});
            }
            sorted.push_back(table.halves[order[i].index]);
        }
        if (!table.groups.empty()) table.groups.back().end = static_cast<std::uint32_t>(order.size());
        table.halves = std::move(sorted);
        std::sort(table.groups.begin(), table.groups.end(),
                  [](const Group& a, const Group& b) { return a.value < b.value; });
    }

    /// The wheels of two halves together; nothing if some are used more often than they are there.
    bool join(const Half& a, const Half& b, int stages, WheelSet& set) const {
        // Unused places sort to the end.
        constexpr std::int16_t unused = 32767;
        set.drivers.fill(unused);
        set.driven.fill(unused);
        std::size_t k = 0;
        for (const Half* h : {&a, &b})
            for (std::size_t i = 0; i < 2; ++i)
                if (h->drivers[i] >= 0) {
                    set.drivers[k] = h->drivers[i];
                    set.driven[k++] = h->driven[i];
                }
        std::sort(set.drivers.begin(), set.drivers.end());
        std::sort(set.driven.begin(), set.driven.end());
        for (std::size_t i = 0; i < static_cast<std::size_t>(stages); ++i)
            for (const std::int16_t w : {set.drivers[i], set.driven[i]}) {
                const auto used = std::count(set.drivers.begin(), set.drivers.end(), w) +
                                  std::count(set.driven.begin(), set.driven.end(), w);
                if (used > wheels[static_cast<std::size_t>(w)].count) return false;
            }
        return true;
    }

    bool withinLimits(const Train& t, const Query& q) const {
        if (t.efficiency < q.leastEfficiency) return false;
        if (q.largestBacklash > 0.0 && t.backlash > q.largestBacklash) return false;
        if (q.sense != Sense::Any && t.reverses != (q.sense == Sense::Opposite)) return false;
        return true;
    }
    bool tooLarge(const WheelSet& set, int stages, const Query& q) const {
        if (q.largestDiameter <= 0.0) return false;
        for (std::size_t i = 0; i < static_cast<std::size_t>(stages); ++i)
            for (const std::int16_t w : {set.drivers[i], set.driven[i]}) {
                const Wheel& wheel = wheels[static_cast<std::size_t>(w)];
                if (wheel.teeth * families[static_cast<std::size_t>(wheel.family)].module > q.largestDiameter)
                    return true;
            }
        return false;
    }
};

namespace {

/// Whether a is the better of two trains of one ratio and stage count.
bool better(const Train& a, const Train& b) {
    if (a.toBuy != b.toBuy) return a.toBuy < b.toBuy;
    if (std::abs(a.inertia - b.inertia) > 1e-12 * b.inertia) return a.inertia < b.inertia;
    return a.size < b.size;
}

/// Pairs of groups in order of error: for each group of the first table a place in the second that walks away
/// from the best fit, upwards and downwards.
class PairStream {
public:
    PairStream(const HalfTable& a, const HalfTable& b, double target) : a_(a), b_(b), target_(target) {
        std::vector<Entry> start;
        start.reserve(2 * a.groups.size());
        // Falling values of the first table meet rising values of the second, so one sweep finds all starts.
        std::size_t place = 0;
        for (std::size_t i = a.groups.size(); i-- > 0;) {
            while (place < b.groups.size() && a.groups[i].value * b.groups[place].value < target) ++place;
            if (place < b.groups.size()) start.push_back(entry(i, place, 1));
            if (place > 0) start.push_back(entry(i, place - 1, -1));
        }
        queue_ = Queue(Later{}, std::move(start));
    }
    struct Pair {
        double error;
        const Group *a, *b;
    };
    bool next(Pair& out) {
        if (queue_.empty()) return false;
        const Entry e = queue_.top();
        queue_.pop();
        out = {e.error, &a_.groups[e.a], &b_.groups[e.b]};
        const auto following = static_cast<std::ptrdiff_t>(e.b) + e.step;
        if (following >= 0 && following < static_cast<std::ptrdiff_t>(b_.groups.size()))
            queue_.push(entry(e.a, static_cast<std::size_t>(following), e.step));
        return true;
    }

private:
    struct Entry {
        double error;
        std::uint32_t a, b;
        int step;
    };
    struct Later {
        bool operator()(const Entry& x, const Entry& y) const { return x.error > y.error; }
    };
    using Queue = std::priority_queue<Entry, std::vector<Entry>, Later>;
    Entry entry(std::size_t a, std::size_t b, int step) const {
        return {std::abs(a_.groups[a].value * b_.groups[b].value / target_ - 1.0),
                static_cast<std::uint32_t>(a), static_cast<std::uint32_t>(b), step};
    }

    const HalfTable &a_, &b_;
    double target_;
    Queue queue_;
};

} // namespace

Bin::Bin(std::vector<Wheel> wheels, std::vector<Family> families) : impl_(std::make_unique<Impl>()) {
    impl_->wheels = std::move(wheels);
    impl_->families = std::move(families);
    impl_->build();
}
Bin::~Bin() = default;
Bin::Bin(Bin&&) noexcept = default;
Bin& Bin::operator=(Bin&&) noexcept = default;

const std::vector<Wheel>& Bin::wheels() const {
    return impl_->wheels;
}
const std::vector<Family>& Bin::families() const {
    return impl_->families;
}

std::vector<Train> Bin::find(const Query& query, const std::stop_token& stop) const {
    const Impl& bin = *impl_;
    const double target = query.target.value();
    std::map<Ratio, Train, RatioOrder> found;
    for (int stages = std::max(1, query.leastStages); stages <= std::min(4, query.mostStages); ++stages) {
        const HalfTable& a = bin.tables[static_cast<std::size_t>((stages + 1) / 2)];
        const HalfTable& b = bin.tables[static_cast<std::size_t>(stages / 2)];
        if (a.groups.empty()) continue;
        PairStream stream(a, b, target);
        std::map<Ratio, Train, RatioOrder> here;
        std::map<Ratio, std::set<WheelSet>, RatioOrder> seen;
        PairStream::Pair pair{};
        double lastError = 0.0; // of the worst ratio wanted so far
        std::size_t visits = 0;
        while (stream.next(pair)) {
            if ((++visits & 1023U) == 0 && stop.stop_requested()) break;
            // Ratios come in order of error; once enough are there, only further trains of the last one
            // matter.
            if (here.size() >= query.most && pair.error > lastError * (1.0 + 1e-12) + 1e-15) break;
            const auto ratio =
                Ratio::of(static_cast<std::int64_t>(pair.a->numerator) * pair.b->numerator,
                          static_cast<std::int64_t>(pair.a->denominator) * pair.b->denominator);
            if (!ratio || found.contains(*ratio) || (query.accept && !query.accept(*ratio))) continue;
            for (std::uint32_t i = pair.a->begin; i < pair.a->end; ++i)
                for (std::uint32_t k = pair.b->begin; k < pair.b->end; ++k) {
                    WheelSet set;
                    if (!bin.join(a.halves[i], b.halves[k], stages, set) || bin.tooLarge(set, stages, query))
                        continue;
                    if (!seen[*ratio].insert(set).second) continue;
                    std::array<int, 4> drivers{}, driven{};
                    std::copy(set.drivers.begin(), set.drivers.end(), drivers.begin());
                    std::copy(set.driven.begin(), set.driven.end(), driven.begin());
                    const auto n = static_cast<std::size_t>(stages);
                    Train t = arranged(bin.wheels, bin.families, std::span(drivers).first(n),
                                       std::span(driven).first(n));
                    if (!bin.withinLimits(t, query)) continue;
                    t.ratio = *ratio;
                    t.error = ratio->value() / target - 1.0;
                    const auto [it, isNew] = here.try_emplace(*ratio, t);
                    if (isNew) {
                        if (here.size() <= query.most) lastError = std::max(lastError, pair.error);
                    } else {
                        t.gearSets = it->second.gearSets + 1;
                        if (better(t, it->second))
                            it->second = t;
                        else
                            it->second.gearSets = t.gearSets;
                    }
                }
        }
        found.merge(here);
        if (stop.stop_requested()) break;
    }
    std::vector<Train> out;
    out.reserve(found.size());
    for (auto& [ratio, train] : found) out.push_back(std::move(train));
    std::sort(out.begin(), out.end(), [&](const Train& x, const Train& y) {
        const ExactError ex = exactError(x.ratio, query.target), ey = exactError(y.ratio, query.target);
        if (smaller(ex, ey)) return true;
        if (smaller(ey, ex)) return false;
        if (x.stages.size() != y.stages.size()) return x.stages.size() < y.stages.size();
        return better(x, y);
    });
    if (out.size() > query.most) out.resize(query.most);
    return out;
}

std::vector<ChangeGears> findChangeGears(const Bin& bin, std::span<const Ratio> targets, int fixedStages,
                                         bool sameCentre, std::size_t most, const std::stop_token& stop) {
    const auto& wheels = bin.wheels();
    // Swapped meshes by sum of teeth (or all together), each list by rising ratio.
    struct Mesh {
        double value;
        Stage stage;
    };
    std::map<std::pair<int, int>, std::vector<Mesh>> meshes;
    for (int a = 0; a < static_cast<int>(wheels.size()); ++a)
        for (int b = 0; b < static_cast<int>(wheels.size()); ++b) {
            const Wheel &x = wheels[static_cast<std::size_t>(a)], &y = wheels[static_cast<std::size_t>(b)];
            if (x.family != y.family || (a == b && x.count < 2)) continue;
            meshes[{x.family, sameCentre ? x.teeth + y.teeth : 0}].push_back(
                {static_cast<double>(y.teeth) / x.teeth, {a, b}});
        }
    for (auto& [key, list] : meshes)
        std::sort(list.begin(), list.end(), [](const Mesh& p, const Mesh& q) { return p.value < q.value; });
    // Fixed parts: every train of so many stages, by the plain nested choice; at most two stages.
    std::vector<std::vector<Stage>> fixed{{}};
    for (int s = 0; s < fixedStages; ++s) {
        std::vector<std::vector<Stage>> longer;
        for (const auto& f : fixed)
            for (const auto& [key, list] : meshes)
                for (const Mesh& m : list)
                    if (f.empty() || std::pair(f.back().driver, f.back().driven) <=
                                         std::pair(m.stage.driver, m.stage.driven)) {
                        longer.push_back(f);
                        longer.back().push_back(m.stage);
                    }
        fixed = std::move(longer);
        if (stop.stop_requested()) return {};
    }
    std::vector<int> left(wheels.size());
    std::vector<ChangeGears> best;
    std::size_t visits = 0;
    for (const auto& f : fixed) {
        if ((++visits & 255U) == 0 && stop.stop_requested()) break;
        for (std::size_t i = 0; i < wheels.size(); ++i) left[i] = wheels[i].count;
        double ratio = 1.0;
        bool fits = true;
        for (const Stage& s : f) {
            fits = --left[static_cast<std::size_t>(s.driver)] >= 0 && fits;
            fits = --left[static_cast<std::size_t>(s.driven)] >= 0 && fits;
            ratio *= static_cast<double>(wheels[static_cast<std::size_t>(s.driven)].teeth) /
                     wheels[static_cast<std::size_t>(s.driver)].teeth;
        }
        if (!fits) continue;
        for (const auto& [key, list] : meshes) {
            ChangeGears c;
            c.fixed = f;
            for (const Ratio& target : targets) {
                const double wanted = target.value() / ratio;
                // Nearest mesh whose wheels are left; swapped meshes are never on at the same time.
                const auto at = std::lower_bound(list.begin(), list.end(), wanted,
                                                 [](const Mesh& m, double v) { return m.value < v; });
                const Mesh* nearest = nullptr;
                double error = 0.0;
                const auto consider = [&](const Mesh& m) {
                    const auto need = m.stage.driver == m.stage.driven ? 2 : 1;
                    if (left[static_cast<std::size_t>(m.stage.driver)] < need ||
                        left[static_cast<std::size_t>(m.stage.driven)] < 1)
                        return false;
                    const double e = std::abs(m.value / wanted - 1.0);
                    if (nearest == nullptr || e < error) nearest = &m, error = e;
                    return true;
                };
                for (auto up = at; up != list.end() && !consider(*up);) ++up;
                for (auto down = at; down != list.begin();)
                    if (consider(*--down)) break;
                if (nearest == nullptr) break;
                c.swapped.push_back(nearest->stage);
                c.worstError = std::max(c.worstError, error);
            }
            if (c.swapped.size() != targets.size()) continue;
            const auto place =
                std::lower_bound(best.begin(), best.end(), c.worstError,
                                 [](const ChangeGears& x, double e) { return x.worstError < e; });
            if (static_cast<std::size_t>(place - best.begin()) >= most) continue;
            best.insert(place, std::move(c));
            if (best.size() > most) best.pop_back();
        }
    }
    return best;
}

} // namespace gantry::ratiofinder
