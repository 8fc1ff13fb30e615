// IEEE 1364-2005 clause 17.1.3: once a step
module t;
  reg a, b;
  initial begin
    $monitor("%0t %b%b", $time, a, b);
    a = 0; b = 0;
    #5 a = 1; b = 1;
    #5 a = 1;
    #5 a = 0;
  end
endmodule
//> 0 00
//> 5 11
//> 15 01
