// IEEE 1800-2017 clause 21.2.3: a monitor prints when one of its values has changed
module t;
  int a = 0;
  initial begin
    $monitor("%0t %0d", $time, a);
    #2 a = 1;
    #2 a = 1;
    #2 a = 2;
  end
endmodule
//> 0 0
//> 2 1
//> 6 2
