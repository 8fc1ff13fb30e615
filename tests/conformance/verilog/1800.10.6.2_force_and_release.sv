// IEEE 1800-2017 clause 10.6.2: a forced variable shows nothing else until it is released
module t;
  logic [3:0] a = 1;
  initial begin
    force a = 9;
    a = 3;
    $write("%0d ", a);
    release a;
    $write("%0d ", a);
    a = 5;
    $display("%0d", a);
  end
endmodule
//> 9 9 5
