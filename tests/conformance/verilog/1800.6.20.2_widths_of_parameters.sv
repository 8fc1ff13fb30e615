// IEEE 1800-2017 clause 6.20.2: a parameter without a type is as its value, one with a range has it
module t;
  parameter A = 4'hf;
  parameter [7:0] B = 4'hf;
  parameter int C = 4'hf;
  parameter signed [3:0] D = 15;
  initial begin
    $display("%0d %0d %0d %0d", $bits(A), $bits(B), $bits(C), $bits(D));
    $display("%0d %0d", A + 1'b1, D);
  end
endmodule
//> 4 8 32 4
//> 0 -1
