// IEEE 1364-2005 clause 14.2: path delays say nothing of what a design does
module inv(input a, output y);
  assign y = ~a;
  specify
    (a => y) = 3;
  endspecify
endmodule
module t;
  wire y;
  inv u(1'b0, y);
  initial #1 $display("%b", y);
endmodule
//> 1
