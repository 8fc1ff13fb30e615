// IEEE 1364-2005 clause 17.1.2: after all assignments
module t;
  reg a;
  initial begin
    a = 0;
    $strobe("%b", a);
    a <= 1;
  end
endmodule
//> 1
