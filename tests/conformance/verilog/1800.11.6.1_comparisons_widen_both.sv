// IEEE 1800-2017 clause 11.6.1: the wider side says how wide
module t;
  logic [3:0] a = 15, b = 1;
  initial begin
    $display("%b", (a + b) == 0);
    $display("%b", (a + b) == 4'd0);
    $display("%b", (a + b) == 5'd16);
  end
endmodule
//> 0
//> 1
//> 1
