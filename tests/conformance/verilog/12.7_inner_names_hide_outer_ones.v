// IEEE 1364-2005 clause 12.7: in a named block
module t;
  reg [3:0] v;
  initial begin : b
    reg [3:0] v;
    v = 1;
    t.v = 2;
    $display("%0d %0d", v, t.v);
  end
endmodule
//> 1 2
