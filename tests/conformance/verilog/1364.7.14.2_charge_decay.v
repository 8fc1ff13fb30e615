// IEEE 1364-2005 clause 7.14.2: a charge that nobody drives is lost after the third delay
module t;
  reg e;
  trireg #(0, 0, 10) r;
  assign r = e ? 1'b1 : 1'bz;
  initial begin
    e = 1;
    #5 e = 0;
    #9 $write("%b", r);
    #2 $write("%b", r);
    e = 1;
    #1 e = 0;
    #8 e = 1;
    #1 e = 0;
    #9 $write("%b", r);
    #2 $display("%b", r);
  end
endmodule
//> 1x1x
