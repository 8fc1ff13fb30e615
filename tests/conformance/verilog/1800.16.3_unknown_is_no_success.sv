// IEEE 1800-2017 clause 16.3: an assertion of an unknown value fails
module t;
  logic a;
  initial assert (a) $display("no");
  else $display("fails");
endmodule
//> fails
