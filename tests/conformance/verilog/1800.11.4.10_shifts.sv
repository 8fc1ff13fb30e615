// IEEE 1800-2017 clause 11.4.10: an arithmetic shift keeps the sign where there is one
module t;
  logic signed [7:0] s = -16;
  logic [7:0] u = 8'hf0;
  initial $display("%0d %h %0d", s >>> 2, u >>> 2, s <<< 1);
endmodule
//> -4 3c -32
