// IEEE 1800-2017 clause 6.8: `assign` to a variable that nobody else writes
module t;
  logic [3:0] a = 1;
  logic [3:0] y;
  int twice;
  assign y = a + 1;
  assign twice = 2 * a;
  initial begin
    #1 $display("%0d %0d", y, twice);
    a = 7;
    #1 $display("%0d %0d", y, twice);
  end
endmodule
//> 2 2
//> 8 14
