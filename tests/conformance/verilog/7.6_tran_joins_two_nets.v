// IEEE 1364-2005 clause 7.6: in both directions
module t;
  reg a, en;
  wire x, y, z;
  assign x = a;
  tran (x, y);
  tranif1 (y, z, en);
  initial begin
    a = 1; en = 0;
    #1 $write("%b%b%b ", x, y, z);
    en = 1;
    #1 $display("%b%b%b", x, y, z);
  end
endmodule
//> 11z 111
