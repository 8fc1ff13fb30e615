// IEEE 1800-2017 clause 16.4: what passes by within a step of time is not reported
module t;
  logic a = 0, b = 1;
  always_comb assert #0 (a != b) else $error("equal at %0t", $time);
  initial begin
    #1 a = 1;
    #0 b = 0;
    #1 a = 0;
  end
endmodule
//> error: equal at 2
