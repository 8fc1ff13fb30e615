// IEEE 1800-2017 clause 9.4.2: several events in one control
module t;
  logic a = 0, b = 0, c = 0;
  int n = 0;
  always @(a or posedge b, negedge c) n++;
  initial begin
    #1 a = 1;
    #1 b = 1;
    #1 b = 0;
    #1 c = 1;
    #1 c = 0;
    #1 $display("%0d", n);
  end
endmodule
//> 3
