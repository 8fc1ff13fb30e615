// IEEE 1800-2017 clause 13.3: directions and types of arguments go on until others are said
module t;
  int s, d;
  task sums(input int a, b, output int sum, difference);
    sum = a + b;
    difference = a - b;
  endtask
  initial begin
    sums(7, 3, s, d);
    $display("%0d %0d", s, d);
  end
endmodule
//> 10 4
