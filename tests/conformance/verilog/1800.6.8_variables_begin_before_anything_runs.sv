// IEEE 1800-2017 clause 6.8: a value in a declaration makes no event
module t;
  logic a = 1;
  int n = 0;
  always @(a) n++;
  initial begin
    #1 $display("%0d", n);
    a = 0;
    #1 $display("%0d", n);
  end
endmodule
//> 0
//> 1
