// IEEE 1800-2017 clause 9.4.3: who waits for a queue wakes when it changes
module t;
  int q[$];
  initial begin
    wait (q.size() == 2) $display("two at %0t", $time);
  end
  initial begin
    #3 q.push_back(1);
    #3 q.push_back(2);
    #3 q.push_back(3);
  end
endmodule
//> two at 6
