// IEEE 1800-2017 clause 10.4.2: of two later assignments in one moment
module t;
  int a;
  initial begin
    a <= 1;
    a <= 2;
    #1 $display("%0d", a);
    a <= #2 5;
    a <= #1 4;
    #3 $display("%0d", a);
  end
endmodule
//> 2
//> 5
