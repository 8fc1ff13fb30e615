// IEEE 1800-2017 clause 11.4.12: whatever is in them
module t;
  logic signed [3:0] a = -1;
  int n;
  initial begin
    n = {a};
    $display("%0d", n);
    n = a;
    $display("%0d", n);
    $display("%b", {a} < 4'sd0);
  end
endmodule
//> 15
//> -1
//> 0
