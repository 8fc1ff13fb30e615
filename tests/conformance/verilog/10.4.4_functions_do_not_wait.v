// IEEE 1364-2005 clause 10.4.4: no delay inside
module t;
  function f(input a); //! function-waits
    begin
      #1 f = a;
    end
  endfunction
endmodule
