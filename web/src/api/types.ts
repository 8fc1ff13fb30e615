/** The shapes of the server's answers; the models in src/obento/server say what each means. */
export interface Me { id: number; name: string; email: string; csrf: string }
export type Kind = 'right' | 'rules' | 'wrong' | 'unchecked' | 'missing'
export interface Area { kind: Kind; count: number }
export interface LabCard { id: number; title: string; due_at: string | null; tasks: string[]; areas: Area[]; handed_in: number; students: number; sent: number }
export interface ClassCard { id: number; name: string; school: string; role: string; students: number; labs: LabCard[] }
export interface TaskHead { id: number; title: string; version: number | null; is_right: boolean; right: number; wrong: number; unchecked: number; clusters_open: number }
export interface Lab {
  id: number; class_id: number; title: string; class_name: string; school: string; due_at: string | null; which_attempt: string
  late_share: number; tasks: TaskHead[]; handed_in: number; unsettled: number; students: number; sent: number; running: boolean
}
export interface Colleague { id: number; name: string; email: string; role: 'ta' | 'lecturer'; joined: boolean }
export interface LabTerms {
  title: string; due_at: string | null; which_attempt: 'last' | 'first' | 'best'; late_share: number; late: number
  extensions: { student_id: number; name: string; due_at: string; reason: string }[]; students: { id: number; name: string; number: string }[]
}
export interface Message { severity: 'error' | 'warning' | 'note'; code: string; file: string; line: number; column: number; text: string; hint: string; end_line: number; end_column: number }
export interface Port { name: string; direction: 'in' | 'out'; width: number; signed: boolean; radix: string }
export interface CatchRate {
  share: number | null; reference: string; telling: number; caught: number; harmless: number; cases: number; compared: number; trouble: string
  missed: { file: string; line: number; change: string; inputs: string; shows: string }[]
}
export interface TableRow { index: number; label: string; step: StepPlace | null; inputs: string[]; outputs: string[]; sources: string[][]; agrees: boolean }
export interface SpecPreview {
  title: string; unit: string; messages: Message[]; is_right: boolean; ports: Port[]; sources: string[]; cases: number; uncovered: number
  rows: TableRow[]; groups: Record<string, number>; coverage: Coverage | null; sequences: string[]
}
export interface Coverage { rows: number; states: number; taken: number; possible: number; possible_states: number; unreached: string[]; idle_rows: number[]; is_whole: boolean; grid: string[] }
export interface SpecView { text: string; version: number; used: boolean; frozen_late: string | null; is_older: boolean; preview: SpecPreview }
export interface Proposal { id: number; name: string; number: string }
export interface NameBinding { ours: string; theirs: string; how: string; agreed: boolean }
export interface IntakeTask { task_id: number; status: string; language: string; unit: string; binding: NameBinding[]; message: string; twice: { unit: string; files: string[] }[] }
export interface TwiceText { unit: string; path: string; text: string }
export interface IntakeEntry {
  handin_id: number; label: string; who: string; number: string; team: boolean; proposals: Proposal[]; attempt: number; attempts: number
  received_at: string | null; late: boolean; files: { path: string; size: number }[]; tasks: IntakeTask[]; settled: boolean
}
export interface Intake { entries: IntakeEntry[]; missing: Proposal[]; drops: { name: string; at: string; files: number; left_out: string[] }[]; students: Proposal[] }
export interface DropResult { handins: number; new_attempts: number; repeated: number; unsettled: number; left_out: string[] }
export interface RunView { state: string; total: number; done: number; busy: number }
export interface Member { handin_id: number; name: string; language: string; attempt: number; late: boolean; bound: string[]; mark: number | null; held: boolean; noted: boolean; trouble: string }
export interface StepPlace { sequence: string; number: number; clock: string; follows: boolean }
export interface CaseRow { index: number; label: string; step: StepPlace | null; inputs: string[]; expected: string[]; actual: string[]; wrong: boolean[]; run: string; cell: Cell; group: string | null }
export type Cell = 'p' | 'f' | 'u' | 'n' | 's'
export interface Cluster {
  key: string; kind: Exclude<Kind, 'missing'>; title: string; sentences: string[]; strip: string; strip_shares: number[]; rows: CaseRow[]; passed: number; total: number
  members: Member[]; mark: number | null; comment: string; comment_version: number
}
export interface Results {
  task_id: number; version: number; unit: string; inputs: string[]; outputs: string[]; cases: number; clocked: boolean; case_labels: string[]; case_failures: number[]
  case_clusters: number[][]
  clusters: Cluster[]; missing: string[]; waiting: number; checked_at: string | null
}
export interface WaveLine {
  name: string; kind: 'in' | 'out' | 'inner'; width: number; radix: string; signed: boolean; at: number[]; values: string[]; expected_at: number[]; expected: string[]
  bad: [number, number][]
}
export interface Waves {
  sequences: { name: string; first: number; length: number; wrong: number }[]; sequence: number; offset: number; step_time: number; actions: string; cells: string
  clock: string; waves: WaveLine[]; inner: string[]; ended: number; trouble: string
}
export interface Repair { changes: { file: string; line: number; text: string }[]; tried: number; is_known: boolean; is_whole: boolean }
export interface DraftText { text: string; bank: { text: string; place: string; same_kind: boolean }[] }
export interface Since { attempt: number; is_known: boolean; status: string; passed: number; turned_right: number[]; turned_wrong: number[] }
export interface Effect {
  handin_id: number; name: string; kind: Kind; passed: number; total: number; mark: number | null; new_kind: Kind; new_passed: number; new_total: number
  new_mark: number | null; by_hand: boolean
}
export interface LineNote { file: string; line: number; severity: string; text: string }
export interface Review {
  handin_id: number; name: string; status: string; language: string; unit: string; attempt: number; attempts: number; received_at: string; late: boolean
  passed: number; total: number; mark: number | null; held: boolean; mark_reason: string; max_mark: number; inputs: string[]; outputs: string[]
  rows: CaseRow[]; more_rows: number; clocked: boolean; output: string; findings: string[]; rules: string[]; files: { path: string; text: string }[]; notes: LineNote[]; messages: Message[]
  since: Since | null; ports: Port[]; clock: string; binding: NameBinding[]; cluster: string; same: Member[]; comment: string; comment_version: number; note: string; note_version: number
}
export interface LetterTask {
  title: string; status: string; passed: number; compared: number; mark: number | null; total: number; held: string; late: string; comment: string
  note: string; inputs: string[]; outputs: string[]; rows: CaseRow[]; more: number; messages: string[]; bound: string[]; again: string; waves: Waves | null
  spec_version: number; engine: string
}
export interface Letter {
  school: string; class_name: string; lab: string; student: string; team: string[]; attempt: number; received_at: string | null; late: boolean
  tasks: LetterTask[]; mark: number | null; total: number; corrects: boolean
}
export interface FeedbackStudent {
  student_id: number; handin_id: number | null; name: string; number: string; team: boolean; marks: (number | null)[]; held: boolean[]; by_hand: boolean[]
  late: boolean; sum: number | null; letter: 'none' | 'released' | 'read' | 'withdrawn'; outdated: boolean; open_comments: number
}
export interface Feedback { tasks: { id: number; title: string; total: number; clusters: Cluster[] }[]; students: FeedbackStudent[]; sent: number }
export interface Mistake { text: string; count: number; of: number; task: string }
export interface ReportTask {
  title: string; total: number; handed_in: number; right: number; wrong: number; unchecked: number; missing: number; histogram: number[]; middle: number | null
  mistakes: Mistake[]; hardest: { label: string; failed: number; of: number }[]
}
export interface ClassReport { lab: string; class_name: string; school: string; students: number; tasks: ReportTask[]; teach_again: Mistake[] }
export interface Released { letters: number; unchanged: number; without_address: number }
export interface PageView { letter: Letter; number: number; released_at: string; expires_at: string }
export interface Mail { id: string; to: string; subject: string; date: string; text: string }
export interface CircuitPin { id: number; side: 'in' | 'out'; name: string; bits: number[]; inverted: boolean; edge: '' | 'rise' | 'fall' }
export interface CircuitPart { id: number; kind: string; label: string; unit: string; within: number; file: string; line: number; end_line: number; pins: CircuitPin[] }
export interface Circuit {
  trouble: string; parts: CircuitPart[]; wires: { start: number; end: number; label: string }[]; names: Record<string, string>; cases: number[]
  digits: Record<string, string>; explains: number[]; likeness: { pin: number; name: string; how: 'name' | 'same' | 'inverse'; differs: number[]; count: number }[]
}
export interface HandState { outputs: { name: string; got: string; expected: string; wrong: boolean }[]; digits: Record<string, string>; trouble: string }
export interface WhatIf {
  status: string; passed: number; total: number; turned_right: number[]; turned_wrong: number[]; rows: CaseRow[]; messages: Message[]; findings: string[]
}
