// IEEE 1364-2005 clause 4.9.1: elements of an array of wires are driven one by one
module t;
  wire [1:0] a [0:1];
  assign a[0] = 2'b01, a[1] = 2'b10;
  initial #1 $display("%b%b", a[0], a[1]);
endmodule
//> 0110
