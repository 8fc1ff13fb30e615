// IEEE 1800-2017 clause 10.4.2: `<=` takes its values before anybody writes
module t;
  int a = 1, b = 2;
  initial begin
    a <= b;
    b <= a;
    #0 $display("%0d %0d", a, b);
    #1 $display("%0d %0d", a, b);
  end
endmodule
//> 1 2
//> 2 1
