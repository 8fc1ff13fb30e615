// IEEE 1364-2005 clause 7.1.5: terminals are spread bit by bit
module t;
  reg [3:0] a;
  reg b;
  wire [3:0] y;
  and g [3:0] (y, a, b);
  initial begin
    a = 4'b1010; b = 1;
    #1 $display("%b", y);
  end
endmodule
//> 1010
