// IEEE 1364-2005 clause 4.2.2: a variable keeps what was assigned to it
module t;
  reg [1:0] r;
  initial begin
    r = 1; r = 2;
    #5 $display("%0d", r);
  end
endmodule
//> 2
