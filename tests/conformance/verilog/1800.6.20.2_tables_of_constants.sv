// IEEE 1800-2017 clause 6.20.2: a parameter that is an array is looked up by a variable
module t;
  localparam logic [6:0] SEG [10] = '{7'h3f, 7'h06, 7'h5b, 7'h4f, 7'h66, 7'h6d, 7'h7d, 7'h07, 7'h7f, 7'h6f};
  logic [3:0] d; logic [6:0] s;
  always_comb s = d < 10 ? SEG[d] : '0;
  initial begin
    d = 0; #1 $display("%h", s); d = 7; #1 $display("%h", s); d = 12; #1 $display("%h", s);
    d = 'x; #1 $display("%b", s);
  end
endmodule
//> 3f
//> 07
//> 00
//> xxxxxxx
