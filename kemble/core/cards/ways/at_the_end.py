"""The steps that most ways end with: cooled and cut in a tin, and carried to the table. Their words are each way's own."""

from kemble.core.cards.way import Adds, Minutes, Sentence, Step, StepDependency


def cool_in_tin_step(
    title: str, words: tuple[Sentence, ...], *, after: tuple[StepDependency, ...], tools: tuple[str, ...] = ()
) -> Step:
    """Left in its tin until it cuts clean."""
    return Step(
        "cool",
        title,
        words,
        Minutes(fact="rest.cut_after_min"),
        "free",
        tools=tools,
        after=after,
        uses=("counter",),
        at="tin",
    )


def cut_step(title: str, words: tuple[Sentence, ...], *, fixed_min: float, tools: tuple[str, ...]) -> Step:
    """Out of its tin and cut, a quarter of a minute a piece."""
    return Step(
        "cut",
        title,
        words,
        Minutes(fixed=fixed_min, per_piece=0.25),
        "held",
        work="knife",
        tools=tools,
        after=(StepDependency("cool", 0, 1440),),
        uses=("counter",),
        weigh="cut.piece_g",
        cautions=("choking",),
        at="board",
        tips=("tin",),
        becomes="pieces",
    )


def serve_step(
    title: str,
    words: tuple[Sentence, ...],
    minutes: float,
    *,
    after: tuple[StepDependency, ...],
    tips: tuple[str, ...],
    cautions: tuple[str, ...] = ("choking", "public"),
    adds: tuple[Adds, ...] = (Adds(parts=("broth",)),),
    tools: tuple[str, ...] = ("plates", "small forks"),
    at: str = "plate",
) -> Step:
    """Carried to the table, with what stands beside it."""
    return Step(
        "serve",
        title,
        words,
        Minutes(minutes),
        "held",
        tools=tools,
        after=after,
        cautions=cautions,
        at=at,
        tips=tips,
        adds=adds,
    )
