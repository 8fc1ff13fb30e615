/** Texts to begin from, one for each kind of task: all of them are right as they stand. */
export interface Example {
  key: string
  label: string
  rest: string
}
const HEAD = (title: string): string => `obento = "spec/1"\ntitle  = ${JSON.stringify(title)}\nunit   = "my_unit"\n\n`
const MARKS = `
[marks]
total = 10
by = "cases"

[students]
see = "first-failing"
`
export const EXAMPLES: Example[] = [
  {
    key: 'equations',
    label: 'equations',
    rest: `[ports]
in  = "shut locked request"
out = "green hold"

[expect]
equations = '''
green = request & shut & locked
hold  = request & !green
'''
`,
  },
  {
    key: 'table',
    label: 'a truth table',
    rest: `[ports]
in  = "shut locked request"
out = "green hold"

[expect]
table = '''
shut locked request | green hold
1    1      1       | 1     0
0    -      1       | 0     1        // '-' on the left: both values
1    0      1       | 0     1
-    -      0       | 0     0
'''
`,
  },
  {
    key: 'words',
    label: 'words and numbers',
    rest: `[ports]
in  = "fore[16]:dec aft[16]:dec"     # read and written as decimal numbers
out = "sum[17]:dec fore_low"

[expect]
equations = '''
sum      = fore + aft                // exact: no carry is lost
fore_low = fore < aft
'''

[cases]
random = 1000                        # 32 input bits are too many for all combinations
`,
  },
  {
    key: 'function',
    label: 'a function table, clocked',
    rest: `[ports]
in  = "clk clr_n take"
out = "ticket[4]:dec"

[clock]
port = "clk"
edge = "rise"

[reset]
port = "clr_n"
active = 0
kind = "async"

[expect]
function = '''
clk clr_n take ticket | ticket       // left of the bar an output is its value before
-   0     -    -      | 0
r   1     1    11     | 0
r   1     1    -      | ticket+1
r   1     0    -      | =
'''
`,
  },
  {
    key: 'steps',
    label: 'steps, clocked',
    rest: `[ports]
in  = "clk rst go"
out = "lamp"

[clock]
port = "clk"

[reset]
port = "rst"
kind = "sync"

[expect]
steps = '''
rst go | lamp
--- it begins dark
1   0  | 0
0   1  | 1
0   0  | =                           // as in the step before
--- the reset wins
1   1  | 0
'''
`,
  },
]

/** The whole text of an example, for a task of this title. */
export function exampleText(example: Example, title: string): string {
  return HEAD(title) + example.rest + MARKS
}
