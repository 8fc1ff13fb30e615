// IEEE 1364-2005 clause 9.2.2: several to one variable take effect in order
module t;
  reg [1:0] a;
  initial begin
    a <= 1; a <= 2;
    a <= 3;
    #1 $display("%0d", a);
  end
endmodule
//> 3
