// IEEE 1800-2017 clause 11.4.10: shifting by what is not known gives nothing known
module t;
  logic [3:0] a = 4'b1001;
  logic [1:0] n = 2'b0x;
  initial $display("%b %b %b", a << n, a >> n, a << 4'd9);
endmodule
//> xxxx xxxx 0000
