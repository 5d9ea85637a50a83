"""The step that every way with filled pieces has: the filling weighed out and balled on a tray."""

from kemble.core.cards.way import Adds, Minutes, Sentence, Step, StepDependency


def filling_balls_step(
    step_id: str,
    title: str,
    words: tuple[Sentence, ...],
    minutes: Minutes,
    *,
    after: tuple[StepDependency, ...],
    tools: tuple[str, ...] = ("scoop or spoon", "tray", "paper"),
) -> Step:
    """Filling and whole fruit become as many balls as there are pieces; what is over stays in its bowl."""
    return Step(
        step_id,
        title,
        words,
        minutes,
        "held",
        work="messy",
        tools=tools,
        after=after,
        uses=("counter",),
        part="filling",
        weigh="shape.filling_g",
        at="filling tray",
        adds=(Adds(parts=("filling", "heart")),),
        becomes="fillings",
        each="shape.filling_g",
    )
