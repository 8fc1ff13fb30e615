// IEEE 1800-2017 clause 13.3: an argument without a direction has that of the one before it
module t;
  task both(input int a, b, output int sum, difference);
    sum = a + b;
    difference = a - b;
  endtask
  int s, d;
  initial begin
    both(9, 4, s, d);
    $display("%0d %0d", s, d);
  end
endmodule
//> 13 5
