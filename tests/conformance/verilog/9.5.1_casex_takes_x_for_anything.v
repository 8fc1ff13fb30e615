// IEEE 1364-2005 clause 9.5.1: on either side, z too
module t;
  reg [1:0] s;
  initial begin
    s = 2'bx1;
    casex (s)
      2'b00: $display("a");
      2'b11: $display("b");
    endcase
  end
endmodule
//> b
