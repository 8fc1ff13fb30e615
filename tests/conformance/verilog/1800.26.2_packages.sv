// IEEE 1800-2017 clause 26.2: names of a package behind its name
package lock_pkg;
  parameter int W = 6;
  localparam TWICE = 2 * W;
  typedef logic [W-1:0] level_t;
  typedef enum logic [1:0] {SHUT, FILLING, OPEN} gate_t;
  function automatic level_t half(level_t a);
    return a >> 1;
  endfunction
endpackage
module t;
  lock_pkg::level_t a;
  lock_pkg::gate_t g = lock_pkg::OPEN;
  initial begin
    a = lock_pkg::half(6'd40);
    $display("%0d %0d %0d %0d", a, lock_pkg::TWICE, $bits(a), g);
  end
endmodule
//> 20 12 6 2
