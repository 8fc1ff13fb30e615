"""Walking in lists, comments that are owed, and words (selection.ts, clusters.ts, words.ts)."""

from __future__ import annotations

from typing import Any

import pytest

from tests.web.logic.conftest import Logic


@pytest.mark.parametrize(
    ("items", "chosen", "by", "found"),
    [
        ("abc", "a", 1, "b"),
        ("abc", "c", 1, "c"),
        ("abc", "a", -1, "a"),
        ("abc", "?", 1, "a"),
        ("abc", "?", -1, "a"),
        ("abc", "a", 2, "c"),
        ("", "a", 1, None),
    ],
)
def test_walking_stops_at_the_ends(logic: Logic, items: str, chosen: str, by: int, found: str | None) -> None:
    body = "return logic.selection.moved([...a[0]], (x) => x === a[1], a[2]) ?? null"
    assert logic.run(body, items, chosen, by) == found


def cluster(key: str, *handins: int, kind: str = "wrong", comment: str = "") -> dict[str, Any]:
    members = [{"handin_id": n, "name": f"Person {n}"} for n in handins]
    return {"key": key, "kind": kind, "members": members, "comment": comment}


SELECT = """
const results = logic.vue.ref({ clusters: a[0], case_clusters: [[1], [0, 1], []] })
const s = logic.selection.useSelection(results, a[1])
const state = () => [s.chosenKey.value, s.chosenHandin.value]
"""


def test_walking_clusters_and_their_hand_ins(logic: Logic) -> None:
    body = (
        SELECT
        + """
    const seen = [state()]
    for (const [act, by] of [['step', 1], ['stepMember', 1], ['stepMember', 1], ['step', 1], ['step', -1]]) {
      s[act](by)
      seen.push(state())
    }
    return seen
    """
    )
    got = logic.run(body, [cluster("a", 1), cluster("b", 2, 3), cluster("c", 4)], "a")
    assert got == [["a", 1], ["b", 2], ["b", 3], ["b", 3], ["c", 4], ["b", 2]]


def test_a_case_leaves_the_clusters_that_fail_it(logic: Logic) -> None:
    body = SELECT + "return [null, 0, 1, 2].map((n) => { s.filter.value = n; return s.shown.value.map((c) => c.key) })"
    assert logic.run(body, [cluster("a", 1), cluster("b", 2)], "a") == [["a", "b"], ["b"], ["a", "b"], []]


def test_a_cluster_that_is_gone_gives_way_to_the_first(logic: Logic) -> None:
    body = SELECT + "s.keep(); return state()"
    assert logic.run(body, [cluster("a", 1), cluster("b", 2)], "gone") == ["a", 1]
    assert logic.run(body, [cluster("a", 1), cluster("b", 2)], "b") == ["b", 2]
    assert logic.run(body, [], "b") == ["", None]


def test_a_hand_in_chosen_among_the_rows_chooses_its_cluster(logic: Logic) -> None:
    body = SELECT + "s.chooseHandin(3); return state()"
    assert logic.run(body, [cluster("a", 1), cluster("b", 2, 3)], "a") == ["b", 3]


def test_comments_are_owed_to_whoever_is_not_right(logic: Logic) -> None:
    students = [{"student_id": n, "handin_id": h} for n, h in ((1, 11), (2, 12), (3, None), (4, 14))]
    tasks = [
        {"id": 1, "clusters": [cluster("a", 11, 12), cluster("b", 14, kind="right")]},
        {"id": 2, "clusters": [cluster("c", 99)]},
    ]
    body = """
    const open = logic.clusters.openClusters(a[0])
    return open.map((x) => [x.task.id, x.cluster.key, x.students.map((s) => s.student_id)])
    """
    view = {"tasks": tasks, "students": students}
    assert logic.run(body, view) == [[1, "a", [1, 2]], [2, "c", []]], "a hand-in of nobody on the list gets no letter"
    assert logic.run("return logic.clusters.openClusters(null)") == []


@pytest.mark.parametrize(("count", "said"), [(1, "Person 0"), (4, "Person 0, Person 1, Person 2, Person 3")])
def test_few_writers_are_all_named(logic: Logic, count: int, said: str) -> None:
    assert logic.run("return logic.clusters.writersOf(a[0])", cluster("a", *range(count))) == said


def test_many_writers_are_cut(logic: Logic) -> None:
    got = logic.run("return logic.clusters.writersOf(a[0])", cluster("a", *range(200)))
    assert got == "Person 0, Person 1, Person 2, Person 3…"


def test_counting(logic: Logic) -> None:
    got = logic.run("return [0, 1, 2].map((n) => logic.words.count(n, 'case'))")
    assert got == ["0 cases", "1 case", "2 cases"]
    assert logic.run("return logic.words.count(3, 'hand-in is', 'hand-ins are')") == "3 hand-ins are"


def test_a_mark_that_is_held_says_so_and_others_have_two_places(logic: Logic) -> None:
    assert logic.run("return [null, 0, 7, 7.5, 6.666666].map(logic.words.mark)") == ["held", "0", "7", "7.5", "6.67"]


@pytest.mark.parametrize(
    ("names", "heads"),
    [
        (["a", "b"], ["a", "b"]),
        (["level_eq", "other"], ["L", "O"]),
        (["left", "low_limit"], ["left", "low_limit"]),  # both would be L
        (["sum", "carry"], ["S", "C"]),
        ([], []),
    ],
)
def test_narrow_heads_only_where_they_stay_unambiguous(logic: Logic, names: list[str], heads: list[str]) -> None:
    assert logic.run("return logic.words.heads(a[0])", names) == heads


def test_the_servers_moments_are_utc(logic: Logic) -> None:
    body = "return ['2026-11-30T08:05:00', '2026-11-30T08:05:00Z', null].map(logic.words.moment)"
    plain, marked, none = logic.run(body)
    assert plain == marked != "" and none == ""


TASKS = [
    # right, wrong, against the rules, unchecked, clusters without a comment; how it stands, what is left
    ((17, 4, 0, 0, 2), "17 right, 4 wrong", "2 to comment"),
    ((17, 4, 3, 0, 0), "17 right, 4 wrong, 3 against rules", "all commented"),
    ((14, 0, 0, 186, 0), "14 right, 0 wrong", "186 not checked"),
    ((31, 0, 0, 0, 0), "31 right, 0 wrong", "all right"),
]


@pytest.mark.parametrize(("counts", "stands", "left"), TASKS)
def test_how_a_task_stands_is_said_truthfully(logic: Logic, counts: tuple[int, ...], stands: str, left: str) -> None:
    task = dict(zip(("right", "wrong", "against_rules", "unchecked", "clusters_open"), counts, strict=True))
    assert logic.run("return [logic.words.outcomes(a[0]), logic.words.leftToSay(a[0])]", task) == [stands, left]
