// IEEE 1800-2017 clause 6.20.2: `$` is a value of a parameter only where there is no bound
module t;
  parameter int N = 3;
  localparam int M = N * 2;
  logic [M-1:0] a;
  initial begin
    a = '1;
    $display("%0d %b", $bits(a), a);
    a[N] = 0;
    $display("%b", a);
  end
endmodule
//> 6 111111
//> 110111
