"""Looking around in waves (waves/look.ts): what is in sight stays within the sequence, and a click is no drag."""

from __future__ import annotations

from tests.web.logic.conftest import Logic

# 600 pixels on a sequence that ends at 1,000.
LOOK = """
const width = logic.vue.ref(600)
const end = logic.vue.ref(1000)
const scope = logic.vue.effectScope()
const look = scope.run(() => logic.look.useLook(width, end))
const seen = () => [look.view.value.start, look.timeAt(width.value)].map((t) => Math.round(t * 100) / 100)
"""


def test_a_stretch_fills_the_width(logic: Logic) -> None:
    assert logic.run(LOOK + "look.zoomTo(100, 300); return seen()") == [100, 300]
    assert logic.run(LOOK + "look.zoomTo(0, 5000); return seen()") == [0, 1000], "no further than the end"


def test_it_cannot_be_looked_beyond_either_end(logic: Logic) -> None:
    body = LOOK + "look.zoomTo(0, 100); look.grab(0); look.drag(1e6); const left = seen(); look.letGo(); "
    body += "look.grab(0); look.drag(-1e6); return [left, seen()]"
    assert logic.run(body) == [[0, 100], [900, 1000]]


def test_zooming_keeps_the_moment_under_the_pointer(logic: Logic) -> None:
    body = LOOK + "look.zoomTo(200, 400); const before = look.timeAt(150); look.zoom(2, 150); "
    assert logic.run(body + "return [before, look.timeAt(150), seen()]") == [250, 250, [225, 325]]


def test_zooming_ends_at_the_whole_and_at_single_moments(logic: Logic) -> None:
    body = LOOK + "look.zoomTo(0, 1000); for (let i = 0; i < 50; i++) look.zoom(1 / 1.5); const whole = seen(); "
    body += "for (let i = 0; i < 50; i++) look.zoom(1.5); return [whole, look.view.value.scale]"
    assert logic.run(body) == [[0, 1000], 14]


def test_a_wheel_zooms_and_sideways_it_moves(logic: Logic) -> None:
    body = (
        LOOK
        + """
    const after = (...turn) => { look.zoomTo(200, 400); look.wheel(300, ...turn); return seen() }
    return [after(0, -1, false), after(60, 0, false), after(0, 60, true)]
    """
    )
    zoomed, moved, shifted = logic.run(body)
    assert zoomed[0] > 200 and zoomed[1] < 400
    assert moved == shifted == [220, 420]


def test_a_shaking_hand_clicks_and_a_drag_does_not(logic: Logic) -> None:
    body = (
        LOOK
        + """
    const hand = (...xs) => {
      look.zoomTo(200, 400)
      look.grab(100)
      xs.forEach(look.drag)
      return [look.letGo(), seen()[0]]
    }
    return [hand(), hand(102, 99), hand(40), hand(40, 100), look.letGo()]
    """
    )
    assert logic.run(body) == [[True, 200], [True, 200], [False, 220], [False, 200], False]


def test_a_moment_out_of_sight_is_brought_to_the_middle(logic: Logic) -> None:
    body = LOOK + "return [300, 201, 700].map((t) => { look.zoomTo(200, 400); look.bringIn(t); return seen() })"
    assert logic.run(body) == [[200, 400], [101, 301], [600, 800]]


def test_what_is_wanted_before_there_is_room_is_shown_when_there_is(logic: Logic) -> None:
    body = """
    const width = logic.vue.ref(0)
    const scope = logic.vue.effectScope()
    const look = scope.run(() => logic.look.useLook(width, logic.vue.ref(1000)))
    look.zoomTo(100, 300)
    width.value = 400
    await logic.vue.nextTick()
    const first = [look.view.value.start, look.timeAt(400)]
    width.value = 800
    await logic.vue.nextTick()
    scope.stop()
    return [first, [look.view.value.start, look.timeAt(800)]]
    """
    assert logic.wait(body) == [[100, 300], [100, 300]], "a wider window shows the same"
