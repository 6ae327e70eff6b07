"""Exact answers by constraint programming: one place that knows the solver (OR-Tools CP-SAT) and how its answers are told."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any, Final

if TYPE_CHECKING:
    from ortools.sat.python import cp_model

__all__ = ["Model", "Solved", "keep_out", "new_model", "solve"]

Model = Any
"""A `cp_model.CpModel`. The solver is loaded when first asked for: most commands do without."""

SEED: Final = 7
WORKERS: Final = 1
"""One thread: the same question always gets the same answer, and web threads do not fight for processors."""


@dataclass(frozen=True, slots=True)
class Solved:
    """`value` and `bound` of what was made least (or most), whether the one is proved to be the other, and the solution."""

    value: int
    bound: int
    proved: bool
    solution: cp_model.CpSolver

    def of(self, variable: Any) -> int:
        return int(self.solution.value(variable))


def new_model() -> Model:
    from ortools.sat.python import cp_model

    return cp_model.CpModel()


def keep_out(model: Model, expression: Any, banned: Iterable[tuple[int, int]], widest: int = 1 << 20) -> None:
    """Keep a whole number out of open intervals (from, to): the two ends are allowed. Intervals that overlap are told as one."""
    from ortools.sat.python import cp_model

    allowed, at = [], -widest
    for low, high in sorted(banned):
        if low >= at:
            allowed.append((at, low))
        at = max(at, high)
    allowed.append((at, widest))
    if isinstance(expression, int):
        if not any(low <= expression <= high for low, high in allowed):
            model.add_bool_or([])
        return
    model.add_linear_expression_in_domain(expression, cp_model.Domain.from_intervals([list(each) for each in allowed]))


def solve(model: Model, seconds: float, hints: Iterable[tuple[Any, int]] = ()) -> Solved | None:
    """The best found in that time; None where there is no solution, or none was found."""
    from ortools.sat.python import cp_model

    model.clear_hints()
    for variable, value in hints:
        model.add_hint(variable, value)
    solver = cp_model.CpSolver()
    solver.parameters.max_time_in_seconds = max(0.05, seconds)
    solver.parameters.num_workers = WORKERS
    solver.parameters.random_seed = SEED
    solver.parameters.linearization_level = 2  # all is linear here but a few choices: the relaxation proves most of it
    status = solver.solve(model)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return None
    return Solved(round(solver.objective_value), round(solver.best_objective_bound), status == cp_model.OPTIMAL, solver)
