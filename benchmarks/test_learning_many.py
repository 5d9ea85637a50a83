"""What is learned, over two hundred kitchens whose truth is worked on another grid, twenty makings each; and how fast.

Run with `make bench`; nothing here can fail a build.
"""

import statistics
import sys
import time
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
sys.path[:0] = [str(ROOT / "tests" / "helpers")]

from learning_kitchens import DONE, Finer, House, cake, knowing, off  # noqa: E402
from promises import amount, measured  # noqa: E402, amount

from kemble.core.learn.posterior import learn  # noqa: E402
from kemble.core.stations.work_sheet import work  # noqa: E402

KITCHENS = amount(200, 3)
MADE = [cake(180), cake(160, 0.8), cake(220, 1.15)]
NEW = cake(200, 1.5)


def test_two_hundred_kitchens():
    errors, new, inside, won, lost = {n: [] for n in (0, 3, 10, 20)}, {0: [], 10: []}, [], 0.0, 0.0
    for seed in range(KITCHENS):
        house = Finer(seed, noise=0.06)
        batches = [house.makes(MADE[house.chance.randrange(3)]) for _ in range(20)]
        for n, result in errors.items():
            result.append(off(house, MADE[0], batches[:n]))
        for n, result in new.items():
            result.append(off(house, NEW, batches[:n]))
        fact = work(MADE[1], knowing(batches[:10])).facts[DONE]
        inside += [fact.low <= house.takes(MADE[1]) <= fact.high for _ in range(2)]
        if seed % 4 == 0:
            spoiled = [house.makes(MADE[1], odd=2.0) if i == 9 else batch for i, batch in enumerate(batches[:10])]
            clean, odd = errors[10][-1], off(house, MADE[0], spoiled)
            won, lost = won + errors[0][-1] - clean, lost + odd - clean
    mean = {n: statistics.mean(error) for n, error in errors.items()}
    said = ", ".join(f"{100 * mean[n]:.1f} % after {n}" for n in mean)
    measured("learn-three", mean[3] / mean[0])
    measured("learn-ten", mean[10] / mean[0])
    measured("learn-new", 100 * (1 - statistics.mean(new[10]) / statistics.mean(new[0])))
    measured("inside", 100 * statistics.mean(inside))
    measured("odd", 100 * lost / won)
    print(f"\n  error of the likely time: {said} ({mean[3] / mean[0]:.2f} and {mean[10] / mean[0]:.2f} of the first)")
    fresh, known = (statistics.mean(result) for result in new.values())
    print(f"  of a new tin and depth: {100 * fresh:.1f} to {100 * known:.1f} %, {100 * (1 - known / fresh):.0f} % less")
    print(f"  {100 * statistics.mean(inside):.0f} of a hundred next makings within first and latest")
    print(f"  an odd making in ten costs {100 * lost / won:.0f} % of the gain")


def test_a_thousand_batches():
    house = House(1)
    batches = [house.makes(MADE[i % 3]) for i in range(amount(1001, 40))]
    began = time.perf_counter()
    learn(batches[:1000])
    cold = time.perf_counter() - began
    began = time.perf_counter()
    learn(batches)
    more = time.perf_counter() - began
    print(f"\n  learned from 1,000 batches: {1000 * cold:.0f} ms; from one more: {1000 * more:.0f} ms")
    measured("learn", 1000 * cold)
    measured("learn-one", 1000 * more)
