// IEEE 1364-2005 clause 9.3.1: a procedural assign overrides others until deassign
module t;
  reg q, a;
  initial begin
    q = 0; a = 1;
    assign q = a;
    q = 0;
    #1 $write("%b", q);
    deassign q;
    #1 $write("%b", q);
    q = 0;
    #1 $display("%b", q);
  end
endmodule
//> 110
