// IEEE 1364-2005 clause 10.4.4: no non-blocking assignment
module t;
  reg q;
  function g (input a);
    begin
      q <= a; //! function-later
      g = a;
    end
  endfunction
endmodule
