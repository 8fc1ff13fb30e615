// IEEE 1364-2005 clause 9.8.2: fork and join
module t;
  initial begin
    fork
      #3 $write("b%0t ", $time);
      #1 $write("a%0t ", $time);
    join
    $display("c%0t", $time);
  end
endmodule
//> a1 b3 c3
