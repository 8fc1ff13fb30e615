// IEEE 1800-2017 clause 11.4.11: both values have the size of the wider one
module t;
  logic [3:0] a = 4'b1000;
  logic [7:0] b = 8'h01;
  logic sel = 1;
  initial begin
    $display("%b", sel ? a : b);
    $display("%b", (sel ? a : b) << 1);
    $display("%0d", $bits(sel ? a : b));
  end
endmodule
//> 00001000
//> 00010000
//> 8
