"""Asking the server (resource.ts, client.ts): the latest counts, passing trouble passes, nothing is sent twice."""

from __future__ import annotations

from tests.web.logic.conftest import Logic

# A resource whose questions are answered when the test says so, in the order it says.
ASK = """
const { useResource } = logic.resource
const later = []
const signals = []
const scope = logic.vue.effectScope()
const r = scope.run(() => useResource((signal) => {
  signals.push(signal)
  return new Promise((yes, no) => later.push({ yes, no }))
}, { lazy: true }))
const state = () => [r.data.value, r.trouble.value, r.isLoading.value]
"""


def test_an_earlier_answer_never_replaces_a_later_one(logic: Logic) -> None:
    body = (
        ASK
        + """
    const [first, second] = [r.reload(), r.reload()]
    later[1].yes('new')
    later[0].yes('old')
    return [await first, await second, ...state(), signals[0].aborted, signals[1].aborted]
    """
    )
    assert logic.wait(body) == [None, "new", "new", "", False, True, False]


def test_trouble_keeps_what_was_heard_and_goes_with_the_next_answer(logic: Logic) -> None:
    body = (
        ASK
        + """
    const seen = []
    for (const [what, value] of [['yes', 'a'], ['no', new Error('gone')], ['yes', 'b']]) {
      const asked = r.reload()
      later.at(-1)[what](value)
      await asked
      seen.push(state())
    }
    return seen
    """
    )
    assert logic.wait(body) == [["a", "", False], ["a", "gone", False], ["b", "", False]]


def test_the_trouble_of_an_earlier_question_is_nobodys(logic: Logic) -> None:
    body = (
        ASK
        + """
    const [first, second] = [r.reload(), r.reload()]
    later[0].no(new Error('old trouble'))
    await first
    const between = state()
    later[1].yes(1)
    await second
    return [between, state()]
    """
    )
    assert logic.wait(body) == [[None, "", True], [1, "", False]]


def test_clearing_forgets_what_is_on_its_way(logic: Logic) -> None:
    body = (
        ASK
        + """
    const asked = r.reload()
    r.clear()
    later[0].yes('late')
    return [await asked, ...state(), signals[0].aborted]
    """
    )
    assert logic.wait(body) == [None, None, "", False, True]


def test_leaving_the_page_gives_up_the_question(logic: Logic) -> None:
    body = (
        ASK
        + """
    const asked = r.reload()
    scope.stop()
    later[0].yes('late')
    await asked
    return [r.data.value, signals[0].aborted]
    """
    )
    assert logic.wait(body) == [None, True]


def test_it_asks_again_when_what_it_depends_on_changes(logic: Logic) -> None:
    body = """
    const id = logic.vue.ref(1)
    const scope = logic.vue.effectScope()
    const r = scope.run(() => logic.resource.useResource(async () => id.value * 10, { on: id }))
    await new Promise((done) => setTimeout(done))
    const before = r.data.value
    id.value = 2
    await logic.vue.nextTick()
    await new Promise((done) => setTimeout(done))
    scope.stop()
    return [before, r.data.value]
    """
    assert logic.wait(body) == [10, 20]


# `fetch` answers with the statuses that the test gives, one after the other; the waits between are skipped.
SERVER = """
const [own, ownTimer] = [window.fetch, window.setTimeout]
const sent = []
window.setTimeout = (act) => ownTimer(act, 0)
window.fetch = async (path, init) => {
  sent.push(init.method + ' ' + path)
  const status = a[0][sent.length - 1]
  if (status === 0) throw new TypeError('failed to fetch')
  const known = { 200: { ok: true }, 502: '<html>' }
  const body = known[status] ?? { detail: 'because of ' + status, version: 7 }
  return new Response(typeof body === 'string' ? body : JSON.stringify(body), { status })
}
const said = []
const refusal = (e) => [e.status, e.message, e.body?.version ?? null]
const attempt = async (work) => said.push(await work().catch(refusal))
"""
RESTORE = "; window.fetch = own; window.setTimeout = ownTimer; return [sent.length, said]"


def test_a_question_is_asked_again_while_the_server_is_away(logic: Logic) -> None:
    body = SERVER + "await attempt(() => logic.client.get('/home'))" + RESTORE
    assert logic.wait(body, [0, 502, 200]) == [3, [{"ok": True}]]
    assert logic.wait(body, [503, 200]) == [2, [{"ok": True}]]


def test_after_three_times_it_is_told(logic: Logic) -> None:
    body = SERVER + "await attempt(() => logic.client.get('/home'))" + RESTORE
    assert logic.wait(body, [0, 0, 0, 200]) == [3, [[0, "the server does not answer; is it running?", None]]]


def test_a_refusal_is_told_at_once(logic: Logic) -> None:
    body = SERVER + "await attempt(() => logic.client.get('/home'))" + RESTORE
    assert logic.wait(body, [404, 200]) == [1, [[404, "because of 404", 7]]]


def test_what_changes_something_is_never_sent_twice(logic: Logic) -> None:
    for verb in ("post", "put"):
        body = SERVER + f"await attempt(() => logic.client.{verb}('/classes', {{ name: 'x' }}))" + RESTORE
        assert logic.wait(body, [503, 200])[0] == 1
    body = SERVER + "await attempt(() => logic.client.remove('/classes/1/people/2'))" + RESTORE
    assert logic.wait(body, [0, 200])[0] == 1


def test_an_answer_that_is_not_ours_has_a_sentence(logic: Logic) -> None:
    body = SERVER + "await attempt(() => logic.client.post('/classes', {}))" + RESTORE
    (count, [[status, text, _]]) = logic.wait(body, [502])
    assert (count, status) == (1, 502) and "the server could not take this" in text


def test_an_ended_session_is_told_at_one_place_but_not_at_the_door(logic: Logic) -> None:
    body = (
        SERVER
        + """
    let ended = 0
    logic.client.whenSessionEnds(() => ended++)
    await attempt(() => logic.client.get(a[1]))
    """
        + RESTORE.replace("return [", "return [ended, ")
    )
    assert logic.wait(body, [401], "/home")[0] == 1
    assert logic.wait(body, [401], "/me")[0] == 0
    assert logic.wait(body, [403], "/home")[0] == 0


def test_a_question_given_up_is_not_asked_again(logic: Logic) -> None:
    body = (
        SERVER
        + """
    const c = new AbortController()
    window.fetch = async (path, init) => { sent.push(path); c.abort(); throw new DOMException('x', 'AbortError') }
    await attempt(() => logic.client.get('/home', { signal: c.signal }))
    """
        + RESTORE
    )
    assert logic.wait(body, [])[0] == 1


def test_a_query_names_each_item_of_a_list_and_leaves_out_what_is_not_said(logic: Logic) -> None:
    query = {"flag": False, "other": None, "sequence": 0, "wanted": ["a b", "c&d"]}
    got = logic.run("return [a[0], {}, undefined].map(logic.client.written)", query)
    assert got == ["?flag=false&sequence=0&wanted=a+b&wanted=c%26d", "", ""]
