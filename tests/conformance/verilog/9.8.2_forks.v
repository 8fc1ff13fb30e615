// IEEE 1364-2005 clause 9.8.2: parallel blocks
module t;
  event a, b;
  initial begin
    fork
      begin #3 $display("%0t first", $time); end
      #1 $display("%0t second", $time);
      begin @a $display("%0t saw a", $time); -> b; end
      begin #2 -> a; @b $display("%0t saw b", $time); end
    join
    $display("%0t joined", $time);
    fork : named
      forever begin #4 $display("%0t tick", $time); end
      begin #10 disable named; end
    join
    $display("%0t end", $time);
    fork join
    $display("empty");
  end
endmodule
//> 1 second
//> 2 saw a
//> 2 saw b
//> 3 first
//> 3 joined
//> 7 tick
//> 11 tick
//> 13 end
//> empty
