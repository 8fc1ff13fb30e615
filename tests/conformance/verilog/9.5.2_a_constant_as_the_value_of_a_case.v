// IEEE 1364-2005 clause 9.5.2: items may be expressions
module t;
  reg [2:0] r;
  initial begin
    r = 3'b010;
    case (1'b1)
      r[2]: $display("two");
      r[1]: $display("one");
      r[0]: $display("zero");
    endcase
  end
endmodule
//> one
