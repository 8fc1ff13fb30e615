// IEEE 1800-2017 clause 9.4.2: an event control waits for a change of an expression
module t;
  int a = 0, b = 0;
  initial begin
    @(a + b) $display("%0t", $time);
  end
  initial begin
    #1 begin a = 1; b = -1; end
    #1 a = 2;
  end
endmodule
//> 2
