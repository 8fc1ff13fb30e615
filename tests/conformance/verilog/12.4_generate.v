// IEEE 1364-2005 clause 12.4: generate loops, conditions and cases, and the names they make
module leaf #(parameter N = 0)(input a, output y); assign y = a ^ N[0]; initial #N $display("%m %0d", N); endmodule
module t;
  parameter MODE = 2; genvar g, k; wire [3:0] y; reg [3:0] a = 4'b0011; reg [7:0] sum [0:3];
  generate
    for (g = 0; g < 4; g = g + 1) begin : bit_
      wire n; not (n, a[g]);
      leaf #(g + 1) l(.a(n), .y(y[g]));
      for (k = 0; k < 2; k = k + 1) begin : in if (k == g) initial #6 $display("%m"); end
    end
    if (MODE == 1) begin : one initial $display("one"); end
    else if (MODE == 2) begin : two initial #7 $display("%m"); end
    case (MODE) 1: initial $display("c1"); 2, 3: initial #8 $display("c23"); default: initial $display("d"); endcase
  endgenerate
  if (MODE > 1) begin : late reg q; initial begin q = 1; #9 $display("%b %b", late.q, bit_[2].n); end end
  for (g = 0; g < 2; g = g + 1) begin initial #10 $display("%m"); end
  initial #5 $display("%b", y);
endmodule
//> t.bit_[0].l 1
//> t.bit_[1].l 2
//> t.bit_[2].l 3
//> t.bit_[3].l 4
//> 1001
//> t.bit_[0].in[0].genblk1
//> t.bit_[1].in[1].genblk1
//> t.two
//> c23
//> 1 1
//> t.genblk5[0]
//> t.genblk5[1]
