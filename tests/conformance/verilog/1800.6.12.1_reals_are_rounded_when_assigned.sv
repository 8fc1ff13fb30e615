// IEEE 1800-2017 clause 6.12.1: half away from 0
module t;
  int n;
  logic [3:0] v;
  initial begin
    n = 2.5; $display("%0d", n);
    n = -2.5; $display("%0d", n);
    n = 2.4999; $display("%0d", n);
    v = 15.5; $display("%0d", v);
    n = int'(7.5) + int'(0.5); $display("%0d", n);
    n = $rtoi(2.9); $display("%0d", n);
  end
endmodule
//> 3
//> -3
//> 2
//> 0
//> 9
//> 2
