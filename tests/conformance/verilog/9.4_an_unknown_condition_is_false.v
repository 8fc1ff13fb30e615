// IEEE 1364-2005 clause 9.4: x and z take the else branch
module t;
  initial begin
    if (1'bx) $write("a"); else $write("b");
    if (2'bz0) $write("a"); else $write("b");
    if (2'bx1) $display("a"); else $display("b");
  end
endmodule
//> bba
