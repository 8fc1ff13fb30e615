// IEEE 1800-2017 clause 9.4.4: `wait` goes on at once where its condition holds already
module t;
  int count = 3;
  initial begin
    wait (count == 3) $display("%0t", $time);
    wait (count > 4) $display("%0t %0d", $time, count);
  end
  initial repeat (3) #2 count++;
endmodule
//> 0
//> 4 5
