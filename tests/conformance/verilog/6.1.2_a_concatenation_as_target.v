// IEEE 1364-2005 clause 6.1.2: carry and sum in one assignment
module t;
  reg [3:0] a, b;
  wire c;
  wire [3:0] s;
  assign {c, s} = a + b;
  initial begin
    a = 9; b = 8;
    #1 $display("%b %0d", c, s);
  end
endmodule
//> 1 1
