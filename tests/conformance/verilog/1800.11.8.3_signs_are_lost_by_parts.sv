// IEEE 1800-2017 clause 11.8.3: a part, a digit and a concatenation have no sign
module t;
  logic signed [7:0] a = -2;
  int n;
  initial begin
    n = a[7:0];
    $display("%0d", n);
    n = a >>> 1;
    $display("%0d", n);
    n = a[7:0] >>> 1;
    $display("%0d", n);
    n = signed'(a[7:0]);
    $display("%0d", n);
  end
endmodule
//> 254
//> -1
//> 127
//> -2
