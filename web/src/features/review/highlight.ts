/** A piece of a line of source: a word of the language, a comment, or neither. */
export interface Piece {
  text: string
  kind: '' | 'comment' | 'word'
}

const VERILOG_WORDS = `
  module endmodule input output inout wire reg logic assign always always_comb always_ff begin end if else case casez
  casex endcase default for function endfunction task endtask primitive endprimitive parameter localparam initial posedge
  negedge or and not nand nor xor xnor buf integer generate endgenerate genvar signed while repeat forever wait fork join
  disable force release real time automatic`
const SYSTEM_VERILOG_WORDS = `
  package endpackage import export interface endinterface modport typedef enum struct union packed type string bit byte
  shortint int longint const static var void inside unique unique0 priority foreach do return break continue final iff
  join_any join_none timeunit timeprecision assert assume cover ref let bind wait_order with new`
const VHDL_WORDS = `
  entity architecture of is begin end port generic map in out inout buffer signal variable constant type subtype record
  array range to downto process if then elsif else case when others with select for while loop exit next wait until on
  after generate block component function procedure return package body library use and or not nand nor xor xnor sll srl
  mod rem abs all null report assert severity impure pure alias attribute`
const WIRING_WORDS = 'wiring takes gives end place and or not nand nor xor xnor buf select flipflop latch'

/** Comments, then texts in quotes (left plain), then words. */
function pattern(comment: string, words: string, flags: string): RegExp {
  return new RegExp(`(${comment}.*$)|("[^"]*")|\\b(${words.trim().split(/\s+/).join('|')})\\b`, flags)
}
const VERILOG = pattern('\\/\\/', VERILOG_WORDS, 'g')
const SYSTEM_VERILOG = pattern('\\/\\/', VERILOG_WORDS + SYSTEM_VERILOG_WORDS, 'g')
const VHDL = pattern('--', VHDL_WORDS, 'gi')
const WIRING = pattern('\\/\\/', WIRING_WORDS, 'g')

/** The words of the language a file is written in, by its suffix or, where that misleads, by what stands in it. */
export function wordsOf(path: string, text: string): RegExp {
  if (/\.vhdl?$/i.test(path) || /^\s*(entity|architecture)\s+\w+\s/im.test(text)) return VHDL
  if (/\.wiring$/.test(path)) return WIRING
  return /\.svh?$/i.test(path) ? SYSTEM_VERILOG : VERILOG
}
export function pieces(line: string, words: RegExp): Piece[] {
  const found: Piece[] = []
  let at = 0
  for (const m of line.matchAll(words)) {
    if (m.index > at) found.push({ text: line.slice(at, m.index), kind: '' })
    found.push({ text: m[0], kind: m[1] ? 'comment' : m[2] ? '' : 'word' })
    at = m.index + m[0].length
  }
  if (at < line.length) found.push({ text: line.slice(at), kind: '' })
  return found
}
