// IEEE 1364-2005 clause 9.2.2: the value is taken now and given later
module t;
  reg a, y;
  initial begin
    a = 1;
    y <= #5 a;
    a = 0;
    #4 $write("%b", y);
    #2 $display("%b", y);
  end
endmodule
//> x1
