// IEEE 1364-2005 clause 9.3.2: and release gives back
module t;
  reg q;
  initial begin
    q = 0;
    force q = 1;
    q = 0;
    #1 $write("%b", q);
    release q;
    #1 $write("%b", q);
    q = 0;
    #1 $display("%b", q);
  end
endmodule
//> 110
