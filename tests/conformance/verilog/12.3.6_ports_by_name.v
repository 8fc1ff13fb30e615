// IEEE 1364-2005 clause 12.3.6: in any order, and left open
module m(input a, input b, output y);
  assign y = a;
endmodule
module t;
  wire y;
  m u(.y(y), .b(), .a(1'b1));
  initial #1 $display("%b", y);
endmodule
//> 1
