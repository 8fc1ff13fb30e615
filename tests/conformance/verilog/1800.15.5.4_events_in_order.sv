// IEEE 1800-2017 clause 15.5.4: events come in an order, or what stands behind `else` is done
module t;
  event a, b, c;
  initial begin
    #1 -> a;
    #1 -> a;
    #1 -> b;
    #1 -> c;
    #1 -> a;
    #1 -> c;
  end
  initial begin
    wait_order (a, b, c) $display("in order %0t", $time);
    else $display("no %0t", $time);
    wait_order (a, b, c) $display("in order %0t", $time);
    else $display("no %0t", $time);
  end
endmodule
//> in order 4
//> no 6
