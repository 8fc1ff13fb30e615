// IEEE 1800-2017 clause 26.2: with types, constants and automatic variables of their own
package tides;
  typedef enum logic [1:0] {LOW, RISING, HIGH, FALLING} tide_t;
  localparam int STEPS = 4;
  function automatic tide_t after(tide_t now, int steps = 1);
    int n = int'(now);
    n = (n + steps) % STEPS;
    return tide_t'(n);
  endfunction
endpackage
module t;
  import tides::*;
  tide_t now = HIGH;
  initial begin
    $display("%s %s %s", now.name(), after(now).name(), after(now, 3).name());
  end
endmodule
//> HIGH FALLING RISING
